import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { applyTheme, storedTheme } from "./app/theme";
import "./styles.css";

applyTheme(storedTheme());
const root = document.getElementById("root");
if (!root) throw new Error("main: the page has no #root");
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
