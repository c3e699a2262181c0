package fixshelf.render.sql;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/// A piece of SQL with the precedence of its outermost operator, so that parentheses come where they are needed.
record Sql(String text, int precedence) {
    static final int OR = 1;
    static final int AND = 2;
    static final int NOT = 3;
    static final int COMPARE = 4;
    static final int OTHER = 5;
    static final int SUM = 6;
    static final int PRODUCT = 7;
    static final int ATOM = 9;

    static Sql atom(String text) {
        return new Sql(text, ATOM);
    }

    static Sql call(String function, Sql... arguments) {
        String inside = Arrays.stream(arguments).map(Sql::text).collect(Collectors.joining(", "));
        return atom(function + "(" + inside + ")");
    }

    /// `left sign right`, both sides in parentheses where they bind less. Comparisons do not chain: engines read
    /// `a = b = c`, `a < b = c` and `a IS DISTINCT FROM b = c` each in another way, so both sides get parentheses.
    static Sql infix(Sql left, String sign, Sql right, int precedence) {
        int least = precedence == COMPARE ? COMPARE + 1 : precedence;
        return new Sql(left.at(least) + " " + sign + " " + right.at(precedence + 1), precedence);
    }

    /// A CASE of these branches, on one line where it is short.
    static Sql caseOf(List<String> parts) {
        String line = "CASE " + String.join(" ", parts) + " END";
        if (line.length() <= 76 && line.indexOf('\n') < 0) {
            return atom(line);
        }
        String inside = parts.stream().map(p -> "\n  " + indent(p, 2)).collect(Collectors.joining());
        return atom("CASE" + inside + "\nEND");
    }

    static Sql caseWhen(Sql condition, Sql then) {
        return caseOf(List.of("WHEN " + condition.text() + " THEN " + then.text()));
    }

    static Sql caseWhen(Sql condition, Sql then, Sql otherwise) {
        return caseOf(List.of("WHEN " + condition.text() + " THEN " + then.text(), "ELSE " + otherwise.text()));
    }

    /// The text for a place that asks for at least this precedence.
    String at(int least) {
        return precedence >= least ? text : "(" + text + ")";
    }

    static String indent(String text, int by) {
        StringBuilder out = new StringBuilder(text.length() + 64);
        char open = 0;
        for (int i = 0; i < text.length(); i++) {
            char sign = text.charAt(i);
            out.append(sign);
            if (open == 0) {
                boolean comment = text.startsWith("--", i);
                open = comment ? '\n' : sign == '\'' || sign == '"' || sign == '`' ? sign : 0;
            } else if (sign == open) {
                open = 0;
            }
            if (sign == '\n' && open == 0) {
                out.repeat(' ', by);
            }
        }
        return out.toString();
    }
}
