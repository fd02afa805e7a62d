import { MantineProvider } from "@mantine/core";
import { Notifications } from "@mantine/notifications";
import { Provider } from "react-redux";
import { RouterProvider } from "react-router/dom";
import { router } from "./routes";
import { store } from "./store/store";
import { cssVariables, theme } from "./theme";

export function App() {
  return (
    <Provider store={store}>
      <MantineProvider theme={theme} defaultColorScheme="auto" cssVariablesResolver={cssVariables}>
        <Notifications position="top-right" autoClose={6000} transitionDuration={80} />
        <RouterProvider router={router} />
      </MantineProvider>
    </Provider>
  );
}
