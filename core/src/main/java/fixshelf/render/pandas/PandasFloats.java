package fixshelf.render.pandas;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.Map;

/// Floating-point numbers as pandas has them, in columns of `Float64`.
final class PandasFloats {
    private static final Map<String, String> SIGNS =
            Map.of("number +", "+", "number -", "-", "number *", "*", "number /", "/");

    private PandasFloats() {}

    /// Whether a call is about floating-point numbers in a way of its own here.
    static boolean says(Expr.Call call) {
        return switch (call.function().name()) {
            case "to_number", "approximate" -> true;
            case "abs", "round", "floor", "ceil" -> call.argument(0).type() instanceof Type.Num;
            default -> SIGNS.containsKey(call.function().name());
        };
    }

    static Py write(PandasWriter writer, Expr.Call call) {
        List<Expr> a = call.arguments();
        String name = call.function().name();
        return switch (name) {
            case "to_number" -> writer.text(a, "map(float_number, na_action=\"ignore\").astype(\"Float64\")");
            case "approximate" -> byRow(writer, a, "float(x)", "\"Float64\"");
            case "abs" -> writer.text(a, "abs()");
            case "round" -> byRow(writer, a, "nearest(x, " + PandasNumbers.scale(a) + ")", "object");
            case "floor" -> byRow(writer, a, "int(x // 1) if abs(x) < 2**53 else pd.NA", "\"Int64\"");
            case "ceil" -> byRow(writer, a, "-int(-x // 1) if abs(x) < 2**53 else pd.NA", "\"Int64\"");
            default -> {
                String sign = SIGNS.get(name);
                boolean product = sign.equals("*") || sign.equals("/");
                Py left = writer.series(a.get(0));
                yield Py.infix(left, sign, writer.series(a.get(1)), product ? Py.UNARY : Py.PLUS);
            }
        };
    }

    private static Py byRow(PandasWriter writer, List<Expr> a, String value, String dtype) {
        return writer.byRow(value, "x", writer.series(a.getFirst()).text(), dtype);
    }
}
