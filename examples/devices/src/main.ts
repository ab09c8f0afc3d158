/** Two devices side by side: each is a page of its own, with drawers of its own, and they meet at a hub. */
for (const name of ["Desk", "Laptop"]) {
  const address = new URL("device.html", location.href);
  address.search = location.search;
  address.searchParams.set("name", name);
  document
    .querySelector("#both")!
    .append(Object.assign(document.createElement("iframe"), { src: address.href, title: name, name }));
}
