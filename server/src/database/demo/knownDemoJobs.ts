/**
 * Ids of every job that any version of the demo has put into a database, oldest first. Databases from before the worlds were
 * told apart hold them beside a shop's own. A change of the demo adds its ids here; none is ever taken away.
 */
export const knownDemoJobIds: ReadonlySet<string> = new Set([
  "ae685df7-d5be-49f1-80dd-392682d7aaf2",
  "ae76cae2-e687-4ab0-8852-9e6af111567d",
  "7ce08bf3-154e-4035-8db0-cfa32eb8bc54",
  "3bfd1bb0-4a2b-49e4-8ed4-626fadc32bf3",
  "3f59358d-1799-48f0-8353-7536e0443ca2",
  "29c51969-d4a2-4af6-8453-b2695bbce68a",
  "53f2e8be-f2e8-43c5-8e79-74edbbe55c7a",
  "6ea8079e-d9b9-4741-897d-432b95f60de2",
  "2848332d-faf3-4334-8120-7c537b17966b",
  "850d3bd4-1293-46dc-8e83-07e8dfd6f841",
  "c646109b-b768-417a-8b1e-16728eff89db",
  "9e4742dd-b4f5-4235-8c7b-7403bab49595",
  "c8e36515-87d3-4b8c-8f21-fdaf70176f87",
  "b287d119-6f52-4eee-8e48-0e4413a9afc0",
  "8e4f83c9-cb9f-4fb2-8f9b-928db8b58b4e",
  "214f10af-23bb-4a54-8b90-b0adbe874e26",
  "33a15e0a-8a8c-4c0c-88e5-cda5f28e35b9",
  "c67acf4e-ee55-4977-87a9-cb263127a5b7",
  "8c123430-51db-481c-8af2-70bfe0dbdc87",
  "bcffe336-ab52-47b7-8f0b-d5edb34cefb3",
  "c0d9c32a-fb0b-4945-86e3-6dc9c09e27f4",
  "33fbcdb2-990c-40ab-804b-3d26f8d74d7e",
  "765ee43f-4052-480e-8df5-7c6f986b0777",
]);
