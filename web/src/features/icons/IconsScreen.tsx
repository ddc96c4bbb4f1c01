import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import { iconsQuery, iconsZipUrl, iconUrl, type Icons } from "../../api/iconQueries";
import { scenesQuery, sourceOf, type Scenes } from "../../api/sceneQueries";
import { plural } from "../../measure/words";
import { Trouble } from "../../ui/Trouble";
import { Findings } from "../bench/Judgement";
import { useBench, type Bench } from "../bench/useBench";
import { SceneFigure } from "../proofs/SceneFigure";
import { OnTheSite } from "./OnTheSite";

/** All icons of a site: where each is seen, what there is to say of them, and the files to put on the server. */
export function IconsScreen() {
  const { workspace = "", fit = "" } = useParams();
  const bench = useBench(workspace, fit);
  const state = bench.fit ? `${bench.fit.key}/${bench.fit.measuring}` : "";
  const icons = useQuery({ ...iconsQuery(workspace, fit, state), enabled: state !== "" });
  const scenes = useQuery({
    ...scenesQuery(workspace, fit, `${state}/${icons.data?.made}`),
    enabled: state !== "",
  });
  const error = bench.error ?? icons.error ?? scenes.error;
  if (error && !(bench.fit && icons.data)) return <Trouble error={error} />;
  if (!bench.fit || !icons.data || !scenes.data) return <main aria-busy className="px-7 py-10" />;
  return <IconSet bench={bench} icons={icons.data} scenes={scenes.data} />;
}

interface Props {
  bench: Bench;
  icons: Icons;
  scenes: Scenes;
}

function IconSet({ bench, icons, scenes }: Props) {
  const fit = bench.fit!;
  const { workspace } = bench;
  return (
    <main className="px-7 pt-3 pb-10">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <div>
          <h1 className="text-[22px] leading-8">{fit.piece.document.subject}</h1>
          <p className="text-[13px] text-soft">{sentence(icons)}</p>
        </div>
        <div className="ml-auto flex flex-wrap items-center gap-4">
          <Link
            to={`/w/${workspace}/fits/${fit.id}`}
            className="inline-flex min-h-8 items-center px-1 text-[13px] text-soft hover:text-ink hover:underline"
          >
            At the bench
          </Link>
          {icons.made && (
            <a
              href={iconsZipUrl(workspace, fit.id)}
              download
              className="inline-flex min-h-8 items-center rounded-[3px] border border-next bg-next px-3 py-1 text-[13px] font-semibold text-on-next hover:opacity-90"
            >
              Save all as ZIP
            </a>
          )}
        </div>
      </div>
      {icons.made ? (
        <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 xl:grid-cols-[minmax(0,1fr)_372px]">
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-y-8">
            <Seen bench={bench} scenes={scenes} />
            <Files workspace={workspace} fit={fit.id} icons={icons} />
          </div>
          <aside className="grid min-w-0 content-start gap-y-7">
            <Findings bench={bench} fit={fit} />
            <OnTheSite key={`${icons.path}/${icons.title}`} bench={bench} icons={icons} />
          </aside>
        </div>
      ) : (
        <p className="mt-6 text-[14px]">
          The icons are being drawn, each at its own size. They stand here as soon as they are there.
        </p>
      )}
    </main>
  );
}

function sentence(icons: Icons): string {
  if (!icons.made) return "Icons of a site, being made";
  return `${plural(icons.files.length, "file", "files")} for a site, ${icons.weight} together`;
}

const GROUPS: [string, (scene: string) => boolean][] = [
  ["In a tab, and among saved pages", (id) => id.startsWith("tab-strip") || id.startsWith("saved-pages")],
  ["On a home screen", (id) => id.startsWith("home-")],
];

/** The very files where they are seen: tabs at both densities, light and dark, and home screens with three shapes. */
function Seen({ bench, scenes }: { bench: Bench; scenes: Scenes }) {
  const source = sourceOf(bench.workspace, bench.fit!.id, scenes);
  return GROUPS.map(([name, belongs]) => (
    <section key={name} aria-label={name} className="min-w-0">
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">{name}</h2>
      <div className="mt-4 flex flex-wrap items-end gap-x-7 gap-y-6">
        {scenes.scenes
          .filter((scene) => belongs(scene.id))
          .map((scene) => (
            <SceneFigure
              key={scene.id}
              scene={scene}
              scenes={scenes}
              source={source}
              alt={`The icon: ${scene.name}`}
              sight="usual"
              times={4}
            />
          ))}
      </div>
    </section>
  ));
}

function Files({ workspace, fit, icons }: { workspace: string; fit: string; icons: Icons }) {
  return (
    <section aria-label="Files">
      <h2 className="border-b-2 border-strong pb-1.5 text-[16px]">The files</h2>
      <table className="w-full text-left text-[13px]">
        <thead className="sr-only">
          <tr>
            <th>File</th>
            <th>Seen in</th>
            <th>Size</th>
            <th>Weight</th>
          </tr>
        </thead>
        <tbody>
          {icons.files.map((icon) => (
            <tr key={icon.name} className="border-b border-hairline align-baseline max-sm:grid max-sm:py-1">
              <td className="py-1.5 pr-4">
                <a
                  href={iconUrl(workspace, fit, icon)}
                  download
                  className="inline-block min-h-6 font-semibold hover:underline"
                >
                  {icon.name}
                </a>
              </td>
              <td className="pr-4">{icon.use}</td>
              <td className="figure pr-4 whitespace-nowrap text-measure">{size(icon)}</td>
              <td className="figure text-right whitespace-nowrap text-soft max-sm:text-left">
                {icon.weight}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function size(icon: Icons["files"][number]): string {
  if (icon.media_type === "image/svg+xml") return "any size";
  if (icon.media_type === "image/x-icon") return "16, 32, 48";
  return icon.width ? `${icon.width} × ${icon.height}` : "";
}
