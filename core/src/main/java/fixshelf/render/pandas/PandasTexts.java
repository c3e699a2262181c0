package fixshelf.render.pandas;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Text as pandas has it, in columns of strings.
final class PandasTexts {
    private static final long MOST = 1_000_000_000;

    private final PandasWriter writer;

    PandasTexts(PandasWriter writer) {
        this.writer = writer;
    }

    Py write(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "trim" -> writer.text(a, "str.strip(" + characters(a) + ")");
            case "ltrim" -> writer.text(a, "str.lstrip(" + characters(a) + ")");
            case "rtrim" -> writer.text(a, "str.rstrip(" + characters(a) + ")");
            case "remove_prefix" -> writer.text(a, "str.removeprefix(" + writer.one(a.get(1)) + ")");
            case "remove_suffix" -> withoutSuffix(a);
            case "replace" -> replace(a);
            case "upper" -> writer.text(a, "map(all_capitals, na_action=\"ignore\").astype(\"string\")");
            case "lower" ->
                writer.text(
                        a,
                        "map(lambda v: \"\".join(c.lower() if c != \"\\u0130\" else \"i\" for c in v),"
                                + " na_action=\"ignore\").astype(\"string\")");
            case "length" -> writer.text(a, "str.len()");
            case "substring" -> substring(a);
            case "left" -> left(a);
            case "right" -> right(a);
            case "position" ->
                new Py(
                        writer.series(a.get(0))
                                        .method("str.find(" + writer.one(a.get(1)) + ")")
                                        .text() + " + 1",
                        Py.PLUS,
                        true,
                        false);
            case "starts_with" -> writer.text(a, "str.startswith(" + writer.one(a.get(1)) + ")");
            case "ends_with" -> writer.text(a, "str.endswith(" + writer.one(a.get(1)) + ")");
            case "contains" -> writer.text(a, "str.contains(" + writer.one(a.get(1)) + ", regex=False)");
            case "repeat" -> writer.text(a, "str.repeat(" + writer.one(a.get(1)) + ")");
            case "||", "concat" -> joined(a);
            case "concat_ws" -> concatWs(a);
            case "reverse" -> Py.column(writer.series(a.get(0)).at(Py.ATOM) + ".str[::-1]");
            case "initcap" -> writer.text(a, "map(initcap, na_action=\"ignore\").astype(\"string\")");
            case "translate" -> translate(a);
            case "normalize" -> writer.text(a, "str.normalize(\"NFC\")");
            case "split_part" -> part(a);
            case "sort_parts" -> together(a, "sorted");
            case "unique_parts" -> together(a, "dict.fromkeys");
            default -> throw PandasWriter.noForm(call);
        };
    }

    /// A column, or one text where all parts are.
    private Py joined(List<Expr> a) {
        boolean one = a.stream().map(writer::py).allMatch(p -> !p.series() && p.certain());
        Py joined = a.stream()
                .map(e -> one ? writer.py(e) : writer.series(e))
                .reduce((x, y) -> Py.infix(x, "+", y, Py.PLUS))
                .orElseThrow();
        return one ? new Py(joined.text(), Py.PLUS, false, true) : joined;
    }

    /// Its own `removesuffix` takes the whole text away where the suffix is empty.
    private Py withoutSuffix(List<Expr> a) {
        if (a.get(1) instanceof Expr.Literal(String suffix, Type _) && !suffix.isEmpty()) {
            return writer.text(a, "str.removesuffix(" + writer.one(a.get(1)) + ")");
        }
        return writer.text(
                a,
                "map(lambda v: v.removesuffix(" + writer.one(a.get(1)) + "), na_action=\"ignore\").astype(\"string\")");
    }

    private Py together(List<Expr> a, String change) {
        String sign = writer.one(a.get(1));
        return writer.text(
                a,
                "map(lambda v: " + sign + ".join(" + change + "(v.split(" + sign
                        + "))), na_action=\"ignore\").astype(\"string\")");
    }

    private String characters(List<Expr> a) {
        return a.size() > 1 ? writer.one(a.get(1)) : "\" \"";
    }

    private Py replace(List<Expr> a) {
        Py text = writer.series(a.get(0));
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return text;
        }
        Py replaced =
                text.method("str.replace(" + writer.one(a.get(1)) + ", " + writer.one(a.get(2)) + ", regex=False)");
        if (a.get(1) instanceof Expr.Literal) {
            return replaced;
        }
        return new Py(replaced.text() + " if " + writer.one(a.get(1)) + " else " + text.text(), Py.LAMBDA, true, false);
    }

    private static @Nullable Long number(Expr expr) {
        return expr instanceof Expr.Literal(Long n, Type _) ? n : null;
    }

    private Py substring(List<Expr> a) {
        Long start = number(a.get(1));
        Long length = a.size() > 2 ? number(a.get(2)) : Long.valueOf(MOST);
        if (start == null || length == null) {
            return substringByRow(a);
        }
        long from = within(start, -MOST);
        long first = Math.max(0, from - 1);
        long end = Math.max(first, from - 1 + within(length, 0));
        return writer.text(a, "str.slice(" + first + (a.size() > 2 ? ", " + end : "") + ")");
    }

    /// Numbers beyond a billion count as a billion, as in every language.
    private static long within(long number, long least) {
        return Math.max(least, Math.min(number, MOST));
    }

    private Py substringByRow(List<Expr> a) {
        String columns = a.stream().map(e -> writer.series(e).text()).collect(Collectors.joining(", "));
        String names = a.size() > 2 ? "t, i, n" : "t, i";
        String start = "max(min(int(i), 10**9), -(10**9))";
        String end =
                a.size() > 2 ? "max(max(" + start + " - 1, 0), " + start + " - 1 + max(min(int(n), 10**9), 0))" : "";
        return byRow("t[max(" + start + " - 1, 0):" + end + "]", names, columns);
    }

    private Py byRow(String value, String names, String columns) {
        return writer.byRow(value, names, columns, "\"string\"");
    }

    private Py left(List<Expr> a) {
        Long count = number(a.get(1));
        return count != null
                ? Py.column(writer.series(a.get(0)).at(Py.ATOM) + ".str[:"
                        + Math.max(0, Math.min(count, Integer.MAX_VALUE)) + "]")
                : byRow(
                        "t[: max(int(n), 0)]",
                        "t, n",
                        writer.series(a.get(0)).text() + ", "
                                + writer.series(a.get(1)).text());
    }

    private Py right(List<Expr> a) {
        Long count = number(a.get(1));
        if (count == null) {
            return byRow(
                    "t[max(len(t) - max(int(n), 0), 0) :]",
                    "t, n",
                    writer.series(a.get(0)).text() + ", "
                            + writer.series(a.get(1)).text());
        }
        String slice = count < 1 ? "[:0]" : "[-" + Math.min(count, Integer.MAX_VALUE) + ":]";
        return Py.column(writer.series(a.get(0)).at(Py.ATOM) + ".str" + slice);
    }

    private Py concatWs(List<Expr> a) {
        String columns = a.stream().skip(1).map(e -> writer.series(e).text()).collect(Collectors.joining(", "));
        return Py.column("pd.Series([join_known(" + writer.one(a.get(0)) + ", row) for row in zip(" + columns
                + ")], index=" + writer.index() + ", dtype=\"string\")");
    }

    private Py translate(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String from, Type _)
                && a.get(2) instanceof Expr.Literal(String to, Type _))) {
            throw PandasWriter.cannot(
                    "the characters come through a parameter.", "Copy it with the characters filled in.");
        }
        int[] characters = from.codePoints().distinct().toArray();
        StringBuilder found = new StringBuilder();
        StringBuilder written = new StringBuilder();
        StringBuilder dropped = new StringBuilder();
        for (int c : characters) {
            int at = from.codePointCount(0, from.indexOf(Character.toString(c)));
            if (at < to.codePointCount(0, to.length())) {
                found.appendCodePoint(c);
                written.appendCodePoint(to.codePointAt(to.offsetByCodePoints(0, at)));
            } else {
                dropped.appendCodePoint(c);
            }
        }
        String third = dropped.isEmpty() ? "" : ", " + PandasWriter.quoted(dropped.toString());
        String table = "str.maketrans(" + PandasWriter.quoted(found.toString()) + ", "
                + PandasWriter.quoted(written.toString()) + third + ")";
        return writer.text(a, "str.translate(" + table + ")");
    }

    private Py part(List<Expr> a) {
        Long wanted = number(a.get(2));
        if (wanted == null) {
            throw PandasWriter.cannot(
                    "the number of the part comes through a parameter.", "Copy it with the number filled in.");
        }
        long index = wanted > 0 ? wanted - 1 : wanted;
        return writer.text(
                a, "str.split(" + writer.one(a.get(1)) + ", regex=False).str[" + index + "].astype(\"string\")");
    }
}
