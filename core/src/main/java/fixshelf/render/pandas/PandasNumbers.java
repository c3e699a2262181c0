package fixshelf.render.pandas;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// Whole numbers as pandas has them, and exact ones as Python's own decimals in columns of objects.
final class PandasNumbers {
    private final PandasWriter writer;

    PandasNumbers(PandasWriter writer) {
        this.writer = writer;
    }

    Py write(Expr.Call call) {
        List<Expr> a = call.arguments();
        String name = call.function().name();
        return switch (name) {
            case "to_integer" ->
                writer.text(
                        a,
                        "map(lambda v: int(v) if re.fullmatch(r\"" + PandasWriter.BLANKS + "[+-]?[0-9]{1,38}"
                                + PandasWriter.BLANKS + "\", v) and -(2**63) <= int(v) < 2**63 else pd.NA,"
                                + " na_action=\"ignore\").astype(\"Int64\")");
            case "to_decimal" -> toDecimal(call);
            case "to_text" -> toText(a);
            case "+", "-", "*" -> operation(a, name, call.type());
            case "div" ->
                pair(a, "whole(abs(x) // abs(y) * (1 if (x < 0) == (y < 0) else -1)) if y != 0 else pd.NA", true);
            case "mod" -> pair(a, "abs(x) % abs(y) * (-1 if x < 0 else 1) if y != 0 else pd.NA", true);
            case "abs" ->
                isExact(a.getFirst()) ? one(a, "EXACT.abs(x)", "object") : one(a, "whole(abs(int(x)))", "\"Int64\"");
            case "round" -> one(a, "units(x, 1, " + scale(a) + ")", "object");
            case "narrow" ->
                one(
                        a,
                        "narrowed(x, " + narrowed(call).precision() + ", "
                                + narrowed(call).scale() + ")",
                        "object");
            case "divide" -> pair(a, "units(x, y, " + scale(a) + ") if y != 0 else pd.NA", false);
            case "floor" -> one(a, "whole(int(x.to_integral_value(\"ROUND_FLOOR\")))", "\"Int64\"");
            case "ceil" -> one(a, "whole(int(x.to_integral_value(\"ROUND_CEILING\")))", "\"Int64\"");
            default -> throw PandasWriter.noForm(call);
        };
    }

    private static Type.Decimal narrowed(Expr.Call call) {
        return (Type.Decimal) call.type();
    }

    private static boolean isExact(Expr expr) {
        return expr.type() instanceof Type.Decimal;
    }

    static int scale(List<Expr> a) {
        if (a.getLast() instanceof Expr.Literal(Long scale, Type _)) {
            return scale.intValue();
        }
        throw PandasWriter.cannot(
                "the scale comes through a parameter, and it is part of the type.",
                "Copy it as an expression, with the scale filled in.");
    }

    private Py operation(List<Expr> a, String sign, Type type) {
        if (type instanceof Type.Decimal) {
            String method = sign.equals("+") ? "add" : sign.equals("-") ? "subtract" : "multiply";
            return pair(a, "EXACT." + method + "(x, y)", false);
        }
        boolean small = Arithmetic.isSmall(
                new Expr.Call(fixshelf.language.catalogue.Functions.find(sign).orElseThrow(), a));
        if (small) {
            Py left = writer.series(a.get(0));
            Py right = writer.series(a.get(1));
            return Py.infix(left, sign, right, sign.equals("*") ? Py.UNARY : Py.PLUS);
        }
        return pair(a, "whole(x " + sign + " y)", true);
    }

    private Py one(List<Expr> a, String value, String dtype) {
        return writer.byRow(value, "x", writer.object(a.getFirst()), dtype);
    }

    private Py pair(List<Expr> a, String value, boolean whole) {
        return writer.byRow(
                value,
                "x, y",
                writer.object(a.get(0)) + ", " + writer.object(a.get(1)),
                whole ? "\"Int64\"" : "object");
    }

    private Py toText(List<Expr> a) {
        if (a.getFirst().type() instanceof Type.Decimal(int _, int scale)) {
            return writer.text(a, "map(lambda v: digits(v, " + scale + "), na_action=\"ignore\").astype(\"string\")");
        }
        return writer.text(a, "astype(\"string\")");
    }

    private Py toDecimal(Expr.Call call) {
        Type.Decimal type = (Type.Decimal) call.type();
        if (call.arguments().size() > 1) {
            scale(call.arguments());
        }
        return writer.text(
                call.arguments(),
                "map(lambda v: exact_number(v, " + type.precision() + ", " + type.scale()
                        + "), na_action=\"ignore\").astype(object)");
    }
}
