import { NavLink, Outlet } from "react-router";
import text from "../../ui/text.module.css";
import classes from "./parts.module.css";

const tabs = [
  ["/parts", "Drawers"],
  ["/parts/catalogue", "Catalogue"],
  ["/parts/other", "Other parts"],
  ["/parts/orders", "Orders"],
] as const;

/** What lies in the drawers, what can be bought, and what is to be ordered. */
export function PartsScreen() {
  return (
    <div className={`${text.page} ${classes.page}`}>
      <header className={classes.head}>
        <h1>Parts</h1>
        <nav className={classes.tabs} aria-label="Parts">
          {tabs.map(([path, name]) => (
            <NavLink key={path} to={path} end className={classes.tab}>
              {name}
            </NavLink>
          ))}
        </nav>
      </header>
      <Outlet />
    </div>
  );
}
