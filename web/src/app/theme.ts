import {
  Button,
  type CSSVariablesResolver,
  createTheme,
  Input,
  InputWrapper,
  Loader,
  type MantineColorsTuple,
  Modal,
  SegmentedControl,
} from "@mantine/core";

const accent: MantineColorsTuple = [
  "#e8f2f2",
  "#cfe3e4",
  "#a9cccf",
  "#7fb3b7",
  "#569aa0",
  "#378289",
  "#266c74",
  "#1c5b63",
  "#154a51",
  "#0d383e",
];

const filledButton = {
  "--button-bg": "var(--accent)",
  "--button-hover": "var(--accent)",
  "--button-color": "var(--on-accent)",
};

/** Mantine dressed as a pale sleeve: matt grounds, hairlines, small radii, no shadows, one accent. */
export const theme = createTheme({
  fontFamily: "var(--text)",
  fontFamilyMonospace: "var(--mono)",
  headings: { fontFamily: "var(--text)", fontWeight: "650" },
  fontSizes: { xs: "13px", sm: "15px", md: "16px", lg: "18px", xl: "21px" },
  colors: { accent },
  primaryColor: "accent",
  primaryShade: { light: 7, dark: 4 },
  defaultRadius: 3,
  respectReducedMotion: true,
  components: {
    Button: Button.extend({
      defaultProps: { variant: "default", size: "sm" },
      // Mantine writes white on every filled button; on the pale accent of the dark scheme nobody could read it.
      vars: (_theme, { variant }) => ({ root: variant === "filled" ? filledButton : {} }),
    }),
    // A name alone tells nobody anything: a span may have one only where it is something.
    Loader: Loader.extend({ defaultProps: { role: "status" } }),
    Modal: Modal.extend({ defaultProps: { centered: true, transitionProps: { duration: 80 } } }),
    InputWrapper: InputWrapper.extend({
      styles: { label: { fontSize: 13, fontWeight: 550, color: "var(--ink-soft)" }, error: { fontSize: 13 } },
    }),
    Input: Input.extend({
      styles: {
        input: { fontSize: 15, backgroundColor: "var(--field)", borderColor: "var(--line)", color: "var(--ink)" },
      },
    }),
    SegmentedControl: SegmentedControl.extend({
      defaultProps: { size: "xs", transitionDuration: 0 },
      styles: {
        root: { background: "var(--wash)", border: "1px solid var(--line)", padding: 1 },
      },
    }),
  },
});

const scheme = {
  "--mantine-color-body": "var(--ground)",
  "--mantine-color-text": "var(--ink)",
  "--mantine-color-dimmed": "var(--ink-soft)",
  "--mantine-color-default": "var(--panel)",
  "--mantine-color-default-hover": "var(--wash)",
  "--mantine-color-default-color": "var(--ink)",
  "--mantine-color-default-border": "var(--line)",
  "--mantine-color-placeholder": "var(--ink-soft)",
  "--mantine-color-anchor": "var(--accent)",
  "--mantine-color-error": "var(--failed)",
  "--mantine-color-disabled": "var(--wash)",
  "--mantine-color-disabled-color": "var(--ink-soft)",
  "--mantine-color-disabled-border": "var(--line)",
  "--mantine-color-accent-filled": "var(--accent)",
  "--mantine-color-accent-filled-hover": "var(--accent)",
  "--mantine-primary-color-filled": "var(--accent)",
  "--mantine-primary-color-filled-hover": "var(--accent)",
  "--mantine-primary-color-contrast": "var(--on-accent)",
  "--mantine-primary-color-light": "var(--wash)",
};

export const cssVariables: CSSVariablesResolver = () => ({ variables: {}, light: scheme, dark: scheme });
