/** What every paper of the shop is printed with. */
export const ink = "#20303a";
export const soft = "#5b6b74";
export const pageSizes = { a4: "A4", letter: "LETTER" } as const;
