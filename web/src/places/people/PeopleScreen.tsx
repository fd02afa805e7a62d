import { useAppSelector } from "../../app/store/hooks";
import { useMay } from "../../job/useMay";
import { PageTabs } from "../../ui/PageTabs";

/** Who works here, at which bench, and who did what. */
export function PeopleScreen() {
  const isShop = useAppSelector((state) => state.workplace.isShop);
  const mayManage = useMay("manage_people");
  const maySee = useMay("see_audit");
  const tabs = [
    ["/people", "Benches"] as const,
    ...(mayManage ? [["/people/accounts", "Accounts"] as const] : []),
    ...(maySee ? [["/people/audit", "Who did what"] as const] : []),
    ...(isShop ? [["/people/me", "Password and PIN"] as const] : []),
  ];
  return <PageTabs title="People" tabs={tabs} />;
}
