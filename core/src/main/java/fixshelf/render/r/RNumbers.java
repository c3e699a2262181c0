package fixshelf.render.r;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// Whole and exact numbers as R's doubles. What they cannot hold exactly stops the code.
final class RNumbers {
    private final RWriter writer;

    RNumbers(RWriter writer) {
        this.writer = writer;
    }

    R write(Expr.Call call) {
        List<Expr> a = call.arguments();
        String name = call.function().name();
        return switch (name) {
            case "to_integer" -> R.call(".whole_number", writer.text(RWriter.typed(a.getFirst(), Type.TEXT)));
            case "to_decimal" ->
                R.call(
                        ".decimal_number",
                        writer.text(RWriter.typed(a.getFirst(), Type.TEXT)),
                        String.valueOf(a.size() > 1 ? scale(a) : ((Type.Decimal) call.type()).scale()));
            case "to_number" -> R.call(".float_number", writer.text(RWriter.typed(a.getFirst(), Type.TEXT)));
            case "approximate" -> writer.r(RWriter.typed(a.getFirst(), Type.NUMBER));
            case "number +", "number -", "number *", "number /" -> approximate(a, name.substring(name.length() - 1));
            case "to_text" -> toText(a.getFirst());
            case "+", "-", "*" -> operation(a, name, call.type());
            case "div" -> R.call(".quotient", given(a, 0), given(a, 1));
            case "mod" -> R.call(".remainder", given(a, 0), given(a, 1));
            case "abs" -> R.call("abs", given(a, 0));
            case "round" -> R.call(isApproximate(a) ? ".nearest" : ".rounded", given(a, 0), String.valueOf(scale(a)));
            case "narrow" -> narrow(a.getFirst(), (Type.Decimal) call.type());
            case "divide" ->
                R.call(
                        ".divided",
                        given(a, 0),
                        given(a, 1),
                        String.valueOf(scaleOf(a.get(0))),
                        String.valueOf(scaleOf(a.get(1))),
                        String.valueOf(scale(a)));
            case "floor", "ceil" -> {
                R whole = R.call(name.equals("floor") ? "floor" : "ceiling", given(a, 0));
                yield isApproximate(a)
                        ? RWriter.caseWhen(List.of("abs(" + given(a, 0) + ") < 2^53 ~ " + whole.text()))
                        : whole;
            }
            default -> throw RWriter.noForm(call);
        };
    }

    /// R's numbers have no precision; those that have too many digits become missing.
    private R narrow(Expr value, Type.Decimal type) {
        String number = writer.text(RWriter.typed(value, Type.INTEGER));
        String same = "as.numeric(sprintf(\"%." + type.scale() + "f\", " + number + ")) == "
                + writer.r(RWriter.typed(value, Type.INTEGER)).at(R.COMPARE + 1);
        return RWriter.caseWhen(List.of("abs(" + number + ") < 1e" + (type.precision() - type.scale())
                + (scaleOf(value) > type.scale() ? " & " + same : "") + " ~ " + number));
    }

    private static boolean isApproximate(List<Expr> a) {
        return a.getFirst().type() instanceof Type.Num;
    }

    private R approximate(List<Expr> a, String sign) {
        boolean product = sign.equals("*") || sign.equals("/");
        return R.infix(
                writer.r(RWriter.typed(a.get(0), Type.NUMBER)),
                sign,
                writer.r(RWriter.typed(a.get(1), Type.NUMBER)),
                product ? R.IN : R.PLUS);
    }

    private static int scaleOf(Expr expr) {
        return expr.type() instanceof Type.Decimal(int _, int scale) ? scale : 0;
    }

    private static int scale(List<Expr> a) {
        if (a.getLast() instanceof Expr.Literal(Long scale, Type _)) {
            return scale.intValue();
        }
        throw RWriter.cannot(
                "the scale comes through a parameter, and it is part of the type.",
                "Copy it as an expression, with the scale filled in.");
    }

    private String given(List<Expr> a, int index) {
        return writer.text(RWriter.typed(a.get(index), Type.INTEGER));
    }

    private R operation(List<Expr> a, String sign, Type type) {
        R plain = R.infix(
                writer.r(RWriter.typed(a.get(0), Type.INTEGER)),
                sign,
                writer.r(RWriter.typed(a.get(1), Type.INTEGER)),
                sign.equals("*") ? R.IN : R.PLUS);
        if (type instanceof Type.Decimal(int _, int scale)) {
            return R.call(".exactly", plain.text(), String.valueOf(scale));
        }
        boolean small = Arithmetic.isSmall(new Expr.Call(Functions.find(sign).orElseThrow(), a));
        return small ? plain : R.call(".within", plain.text());
    }

    private R toText(Expr number) {
        return RWriter.caseWhen(List.of("!is.na(" + writer.text(number) + ") ~ sprintf(\"%." + scaleOf(number) + "f\", "
                + writer.r(number).at(R.PLUS) + " + 0)"));
    }
}
