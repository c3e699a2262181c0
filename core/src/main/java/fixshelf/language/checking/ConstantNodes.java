package fixshelf.language.checking;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.catalogue.FloatFunctions;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.apache.calcite.sql.SqlCall;
import org.apache.calcite.sql.SqlLiteral;
import org.apache.calcite.sql.SqlNode;
import org.apache.calcite.sql.SqlUnknownLiteral;
import org.apache.calcite.util.NlsString;

/// Constants of the parser's tree, with their types: texts, numbers, days, times, lists and mappings.
final class ConstantNodes {
    private final Findings findings;
    private final Function<SqlNode, Expr> inner;

    /// `inner` checks what stands in a list or a mapping.
    ConstantNodes(Findings findings, Function<SqlNode, Expr> inner) {
        this.findings = findings;
        this.inner = inner;
    }

    Expr literal(SqlLiteral literal) {
        return switch (literal.getTypeName()) {
            case NULL -> Expr.Literal.NULL;
            case BOOLEAN -> Expr.Literal.truth(literal.booleanValue());
            case CHAR -> Expr.Literal.text(literal.getValueAs(NlsString.class).getValue());
            case DECIMAL -> number(literal);
            case DOUBLE -> approximate(literal);
            case UNKNOWN -> date(literal);
            default -> unknownKind(literal);
        };
    }

    private Expr unknownKind(SqlLiteral literal) {
        return findings.report(
                Code.SYNTAX,
                literal,
                "This kind of constant is not known.",
                "Write text, a number, or DATE '2026-02-07'.");
    }

    /// `DATE '2026-02-07'` or `TIMESTAMP '2026-02-07 10:12:00'`, which the parser hands over as they are written.
    private Expr date(SqlLiteral literal) {
        String tag = literal instanceof SqlUnknownLiteral unknown ? unknown.tag.toUpperCase(Locale.ROOT) : "";
        String written = String.valueOf(literal.getValue());
        try {
            Object value =
                    switch (tag) {
                        case "DATE" -> LocalDate.parse(written);
                        case "TIMESTAMP" -> Literals.time(written);
                        default -> unknownKind(literal);
                    };
            return switch (value) {
                case LocalDate day when day.getYear() >= 1 && day.getYear() <= 9999 -> new Expr.Literal(day, Type.DATE);
                case LocalDateTime time
                when time.getYear() >= 1 && time.getYear() <= 9999 -> new Expr.Literal(time, Type.TIMESTAMP);
                case Expr broken -> broken;
                default ->
                    findings.report(Code.SYNTAX, literal, "A day is in the years 0001 to 9999.", "Write another day.");
            };
        } catch (DateTimeParseException e) {
            String usual = tag.equals("DATE") ? "DATE '2026-02-07'" : "TIMESTAMP '2026-02-07 10:12:00'";
            return findings.report(
                    Code.WRONG_TYPE, literal, "There is no such day or time.", "Write " + usual + ", say.");
        }
    }

    private Expr number(SqlLiteral literal) {
        BigDecimal value = literal.getValueAs(BigDecimal.class);
        if (value.scale() > 0) {
            boolean fits = value.precision() <= 38 && value.scale() <= 38;
            return fits
                    ? new Expr.Literal(
                            value, new Type.Decimal(Math.max(value.precision(), value.scale()), value.scale()))
                    : findings.report(Code.WRONG_TYPE, literal, "A number has at most 38 digits.", "Shorten it.");
        }
        BigInteger whole = value.toBigInteger();
        return whole.bitLength() < 64
                ? Expr.Literal.integer(whole.longValue())
                : findings.report(Code.WRONG_TYPE, literal, "A whole number has at most 64 bits.", "Write it as text.");
    }

    /// `1.5e0`, the standard's way to write a floating-point number.
    private Expr approximate(SqlLiteral literal) {
        double value = literal.getValueAs(BigDecimal.class).doubleValue();
        boolean fits = value == 0 || Math.abs(value) >= FloatFunctions.LEAST && Math.abs(value) <= FloatFunctions.MOST;
        return fits
                ? new Expr.Literal(value + 0.0, Type.NUMBER)
                : findings.report(
                        Code.WRONG_TYPE, literal, "A number is 0, or 1e-300 to 1e300 in size.", "Write another one.");
    }

    private Expr made(SqlCall call, Function<List<Expr.Literal>, Optional<Expr>> made) {
        List<Expr.Literal> values = new ArrayList<>();
        for (SqlNode operand : call.getOperandList()) {
            Optional<Expr.Literal> value = Constants.value(inner.apply(operand));
            if (value.isEmpty()) {
                return findings.report(
                        Code.NOT_CONSTANT, operand, "A list or mapping holds constants.", "Use coalesce, or CASE.");
            }
            values.add(value.get());
        }
        return made.apply(values)
                .orElseGet(() -> findings.report(
                        Code.WRONG_TYPE,
                        call,
                        "These values do not make one.",
                        "A list has values of one type; a mapping has keys of one type, each once and not null, and"
                                + " values of one type."));
    }

    /// `ARRAY['a', 'b']`
    Expr list(SqlCall call) {
        return made(call, Constants::list);
    }

    /// `MAP['a', 'x', 'b', 'y']`
    Expr mapping(SqlCall call) {
        return made(call, Constants::mapping);
    }
}
