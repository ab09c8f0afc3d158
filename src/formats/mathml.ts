import { fenced, fraction, matrix, root, scripted } from "./linear-math.js";

/** What is asked of the nodes of a tree of MathML, whoever parsed it. */
export interface MathTree<Node> {
  /** The local name of an element; nothing for what is none. */
  name(node: Node): string | undefined;
  /** The child elements of an element. */
  children(node: Node): readonly Node[];
  /** The text in an element. */
  text(node: Node): string;
}

/** An equation (MathML Core, and the older elements that documents use) as plain text on one line. */
export function mathText<Node>(tree: MathTree<Node>, node: Node): string {
  const parts = () => tree.children(node).map((child) => mathText(tree, child));
  switch (tree.name(node) ?? "") {
    case "mi":
    case "mn":
    case "mo":
    case "mtext":
    case "ms":
      return tree.text(node).trim();
    case "mspace":
      return " ";
    case "annotation":
    case "annotation-xml":
    case "mphantom":
      return "";
    case "mfrac": {
      const [above = "", below = ""] = parts();
      return fraction(above, below);
    }
    case "msqrt":
      return root(parts().join(""));
    case "mroot": {
      const [inner = "", degree = ""] = parts();
      return root(inner, degree);
    }
    case "msup":
    case "mover": {
      const [base = "", above = ""] = parts();
      return scripted(base, "", above);
    }
    case "msub":
    case "munder": {
      const [base = "", below = ""] = parts();
      return scripted(base, below, "");
    }
    case "msubsup":
    case "munderover": {
      const [base = "", below = "", above = ""] = parts();
      return scripted(base, below, above);
    }
    case "mfenced":
      return fenced(parts());
    case "mtable":
      return matrix(tree.children(node).map((row) => tree.children(row).map((cell) => mathText(tree, cell))));
    default:
      return parts().join("");
  }
}
