import { useQuery } from "@tanstack/react-query";
import { Navigate, Outlet, Route, Routes, useParams } from "react-router";

import { Failure } from "./api/client";
import { sessionQuery } from "./api/queries";
import { ArtworkScreen } from "./features/artwork/ArtworkScreen";
import { RoomScreen } from "./features/artwork/RoomScreen";
import { AccountScreen } from "./features/account/AccountScreen";
import { AskScreen } from "./features/asking/AskScreen";
import { BeginScreen } from "./features/begin/BeginScreen";
import { BenchScreen } from "./features/bench/BenchScreen";
import { DeliveriesScreen } from "./features/deliveries/DeliveriesScreen";
import { DeliverScreen } from "./features/deliver/DeliverScreen";
import { DoingScreen } from "./features/doing/DoingScreen";
import { HouseStyleScreen } from "./features/house/HouseStyleScreen";
import { NewPlaceScreen } from "./features/places/NewPlaceScreen";
import { PlaceScreen } from "./features/places/PlaceScreen";
import { ShowPlaceScreen } from "./features/showing/ShowPlaceScreen";
import { JoinScreen } from "./features/run/JoinScreen";
import { RunScreen } from "./features/run/RunScreen";
import { PreparationScreen } from "./features/preparation/PreparationScreen";
import { ConfirmScreen } from "./features/session/ConfirmScreen";
import { ForgottenScreen } from "./features/session/ForgottenScreen";
import { MailsScreen } from "./features/session/MailsScreen";
import { NewPasswordScreen } from "./features/session/NewPasswordScreen";
import { NoWorkspace } from "./features/session/NoWorkspace";
import { FileScreen } from "./features/file/FileScreen";
import { IconsScreen } from "./features/icons/IconsScreen";
import { ProofsScreen } from "./features/proofs/ProofsScreen";
import { SeenScreen } from "./features/proofs/SeenScreen";
import { SignInAgain } from "./features/session/SignInAgain";
import { SignInScreen } from "./features/session/SignInScreen";
import { SignUpScreen } from "./features/session/SignUpScreen";
import { StillsScreen } from "./features/stills/StillsScreen";
import { TakesScreen } from "./features/takes/TakesScreen";
import { WallScreen } from "./features/wall/WallScreen";
import { WatermarkScreen } from "./features/watermark/WatermarkScreen";
import { WorkspaceScreen } from "./features/workspace/WorkspaceScreen";
import { Header } from "./ui/Header";
import { Trouble } from "./ui/Trouble";
import { UploadsProvider } from "./ui/uploads";

export function App() {
  const session = useQuery(sessionQuery());
  if (session.isPending) return null;
  if (!session.data && session.error && !(session.error instanceof Failure && session.error.status === 401)) {
    return <Trouble error={session.error} />;
  }
  if (!session.data) return <Outside />;
  const first = session.data.workspaces[0];
  return (
    <>
      <SignInAgain me={session.data} />
      <Screens first={first?.slug} />
    </>
  );
}

/** What is seen before one is in. */
function Outside() {
  return (
    <Routes>
      <Route path="/sign-up" element={<SignUpScreen />} />
      <Route path="/password" element={<ForgottenScreen />} />
      <Route path="/password/:key" element={<NewPasswordScreen />} />
      <Route path="/confirm/:key" element={<ConfirmScreen />} />
      <Route path="/mail" element={<MailsScreen />} />
      <Route path="/seen/:token" element={<SeenScreen />} />
      <Route path="/ask/:token" element={<AskScreen />} />
      <Route path="*" element={<SignInScreen />} />
    </Routes>
  );
}

function Screens({ first }: { first: string | undefined }) {
  return (
    <Routes>
      <Route path="/w/:workspace" element={<Workspace />}>
        <Route index element={<WallScreen />} />
        <Route path="begin" element={<BeginScreen />} />
        <Route path="fits/:fit" element={<BenchScreen />} />
        <Route path="fits/:fit/proofs" element={<ProofsScreen key={location.pathname} />} />
        <Route path="fits/:fit/file" element={<FileScreen key={location.pathname} />} />
        <Route path="fits/:fit/icons" element={<IconsScreen key={location.pathname} />} />
        <Route path="fits/:fit/takes" element={<TakesScreen key={location.pathname} />} />
        <Route path="artwork" element={<ArtworkScreen />} />
        <Route path="artwork/room" element={<RoomScreen />} />
        <Route path="artwork/:artwork/stills" element={<StillsScreen key={location.pathname} />} />
        <Route path="artwork/:artwork/preparation" element={<PreparationScreen key={location.pathname} />} />
        <Route path="watermarks/:watermark" element={<WatermarkScreen key={location.pathname} />} />
        <Route path="house" element={<HouseStyleScreen />} />
        <Route path="places/new" element={<NewPlaceScreen />} />
        <Route path="places/show" element={<ShowPlaceScreen />} />
        <Route path="places/:place" element={<PlaceScreen key={location.pathname} />} />
        <Route path="workspace" element={<WorkspaceScreen />} />
        <Route path="runs/:piece" element={<RunScreen key={location.pathname} />} />
        <Route path="deliver" element={<DeliverScreen />} />
        <Route path="deliveries" element={<DeliveriesScreen />} />
        <Route path="doing" element={<DoingScreen />} />
        <Route path="*" element={<Trouble error={new Error("There is no such page.")} />} />
      </Route>
      <Route path="/account" element={<AccountScreen />} />
      <Route path="/join/:secret" element={<JoinScreen />} />
      <Route path="/seen/:token" element={<SeenScreen />} />
      <Route path="/ask/:token" element={<AskScreen />} />
      <Route path="/password/:key" element={<NewPasswordScreen />} />
      <Route path="/confirm/:key" element={<ConfirmScreen />} />
      <Route path="/mail" element={<MailsScreen />} />
      <Route path="/sign-up" element={<Navigate to={first ? `/w/${first}/begin` : "/"} replace />} />
      <Route path="*" element={first ? <Navigate to={`/w/${first}`} replace /> : <NoWorkspace />} />
    </Routes>
  );
}

function Workspace() {
  const { workspace = "" } = useParams();
  const session = useQuery(sessionQuery());
  const known = session.data?.workspaces.find((entry) => entry.slug === workspace);
  if (!known) return <Trouble error={new Error("There is no such workspace.")} />;
  return (
    <UploadsProvider key={workspace} workspace={workspace}>
      <Header workspace={known} runs={session.data?.runs ?? false} />
      <Outlet />
    </UploadsProvider>
  );
}
