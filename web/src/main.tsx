import "@fontsource-variable/bricolage-grotesque/wdth.css";
import "@fontsource-variable/instrument-sans/wdth.css";
import "@fontsource-variable/martian-mono/wdth.css";
import "./styles.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";

import { wallQuery } from "./api/queries";
import { App } from "./app";
import { roomNow } from "./features/wall/useRoom";
import { Mishap } from "./ui/Mishap";
import { applyTheme, storedTheme } from "./ui/theme";

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
if (nonce) setNonce(nonce);
applyTheme(storedTheme());

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 2000 } } });

// The wall is asked for together with who is signed in: one answer does not wait for the other.
const wall = /^\/w\/([^/]+)\/?$/.exec(location.pathname)?.[1];
if (wall) void queries.prefetchQuery({ ...wallQuery(wall, roomNow()), retry: false });

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <Mishap>
          <App />
        </Mishap>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
