package fixshelf.render.r;

import java.util.Arrays;
import java.util.stream.Collectors;

/// A piece of R, with the precedence of its outermost operator.
record R(String text, int precedence) {
    static final int OR = 1;
    static final int AND = 2;
    static final int NOT = 3;
    static final int COMPARE = 4;
    static final int PLUS = 5;
    static final int IN = 6;
    static final int UNARY = 7;
    static final int ATOM = 9;

    static R atom(String text) {
        return new R(text, ATOM);
    }

    static R call(String function, String... arguments) {
        return atom(function + "(" + Arrays.stream(arguments).collect(Collectors.joining(", ")) + ")");
    }

    /// Comparisons do not chain: R refuses to read `a == b == c`.
    static R infix(R left, String sign, R right, int precedence) {
        int least = precedence == COMPARE ? COMPARE + 1 : precedence;
        return new R(left.at(least) + " " + sign + " " + right.at(precedence + 1), precedence);
    }

    String at(int least) {
        return precedence >= least ? text : "(" + text + ")";
    }
}
