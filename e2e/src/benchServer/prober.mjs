// Asks whether the server is ready again and again, in a process of its own, and prints how long each answer took.
const [address] = process.argv.slice(2);
const taken = [];
let isOver = false;
process.on("SIGTERM", () => {
  isOver = true;
});
process.send?.("asking");
while (!isOver) {
  const start = performance.now();
  const answer = await fetch(`${address}/api/ready`).catch(() => null);
  taken.push([performance.now() - start, answer?.status ?? 0]);
  await new Promise((resolve) => setTimeout(resolve, 15));
}
process.send?.(taken, () => process.exit(0));
