package fixshelf.render.pandas;

/// A piece of Python.
///
/// @param precedence how tightly its outermost operator binds
/// @param series whether it is a column; otherwise one value
/// @param certain whether it is never missing
record Py(String text, int precedence, boolean series, boolean certain) {
    static final int LAMBDA = 0;
    static final int COMPARE = 1;
    static final int OR = 2;
    static final int AND = 3;
    static final int PLUS = 4;
    static final int UNARY = 5;
    static final int ATOM = 9;

    static Py column(String text) {
        return new Py(text, ATOM, true, false);
    }

    static Py value(String text) {
        return new Py(text, ATOM, false, true);
    }

    /// Comparisons do not chain: Python reads `a < b == c` as `a < b and b == c`.
    static Py infix(Py left, String sign, Py right, int precedence) {
        int least = precedence == COMPARE ? COMPARE + 1 : precedence;
        String text = left.at(least) + " " + sign + " " + right.at(precedence + 1);
        return new Py(text, precedence, true, left.certain && right.certain);
    }

    /// A method of this column.
    Py method(String call) {
        return column(at(ATOM) + "." + call);
    }

    Py sure() {
        return new Py(text, precedence, series, true);
    }

    String at(int least) {
        return precedence >= least ? text : "(" + text + ")";
    }
}
