package fixshelf.render.sql;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// How SQL languages say arithmetic, so that nothing stops, wraps around or is cut.
final class SqlNumbers {
    /// The precision of decimals that are made by conversion, rounding and division.
    static final int PRECISION = 18;

    private final SqlLanguage sql;

    private SqlNumbers(SqlLanguage sql) {
        this.sql = sql;
    }

    static SqlNumbers of(SqlLanguage language) {
        return new SqlNumbers(language);
    }

    static void addTo(SqlLanguage language) {
        SqlNumbers numbers = new SqlNumbers(language);
        for (String sign : List.of("+", "-", "*")) {
            language.say(sign, a -> numbers.operation(a, sign));
        }
        language.say("div", a -> numbers.whole(a, language::quotient, true));
        language.say("mod", a -> numbers.whole(a, (x, y) -> x + " % " + y, false));
        language.say("abs", a -> numbers.abs(a.getFirst()));
        language.say("round", numbers::round);
        language.say(
                "narrow",
                a -> numbers.narrow(
                        a.getFirst(), new Expr.Call(Functions.find("narrow").orElseThrow(), a).type()));
        language.say("floor", a -> numbers.toWhole("floor", a.getFirst()));
        language.say("ceil", a -> numbers.toWhole(language.ceiling(), a.getFirst()));
        language.say("divide", numbers::divide);
    }

    private Sql operation(List<Expr> a, String sign) {
        int precedence = sign.equals("*") ? Sql.PRODUCT : Sql.SUM;
        Sql plain = Sql.infix(sql.sql(a.get(0)), sign, sql.sql(a.get(1)), precedence);
        boolean small = !sign.equals("*") && a.stream().allMatch(Arithmetic::isSmall)
                || Arithmetic.isSmall(new Expr.Call(
                        fixshelf.language.catalogue.Functions.find(sign).orElseThrow(), a));
        Type type =
                new Expr.Call(fixshelf.language.catalogue.Functions.find(sign).orElseThrow(), a).type();
        if (type instanceof Type.Decimal decimal) {
            Sql exact = Sql.infix(sql.widened(a.get(0), decimal), sign, sql.sql(a.get(1)), precedence);
            return sql.ofType(exact, decimal);
        }
        return small ? plain : sql.within64(a, sign, plain);
    }

    /// How a quotient or remainder of whole numbers is written.
    private interface Operation {
        String write(String dividend, String divisor);
    }

    private Sql whole(List<Expr> a, Operation operation, boolean quotient) {
        String plain = operation.write(
                sql.sql(a.get(0)).at(Sql.PRODUCT), sql.sql(a.get(1)).at(Sql.PRODUCT + 1));
        if (a.get(1) instanceof Expr.Literal(Long divisor, Type _) && divisor != 0 && divisor != -1) {
            return new Sql(plain, Sql.PRODUCT);
        }
        boolean never = a.get(1).equals(Expr.Literal.integer(0));
        if (never) {
            return sql.literal(null, Type.INTEGER);
        }
        String divisor = sql.sql(a.get(1)).at(Sql.OTHER);
        Expr zero = Expr.Literal.integer(0);
        String negated = quotient
                ? sql.within64(List.of(zero, a.get(0)), "-", Sql.infix(sql.sql(zero), "-", sql.sql(a.get(0)), Sql.SUM))
                        .text()
                : "CASE WHEN " + sql.sql(a.get(0)).at(Sql.OTHER) + " IS NOT NULL THEN 0 END";
        return Sql.caseOf(List.of(
                "WHEN " + divisor + " NOT IN (0, -1) THEN " + plain, "WHEN " + divisor + " = -1 THEN " + negated));
    }

    private Sql abs(Expr number) {
        Sql plain = Sql.call("abs", sql.sql(number));
        boolean safe = number.type() instanceof Type.Decimal
                || number.type() instanceof Type.Num
                || Arithmetic.isSmall(number);
        return safe ? plain : Sql.caseWhen(Sql.atom(sql.sql(number).at(Sql.OTHER) + " >= -9223372036854775807"), plain);
    }

    private Sql round(List<Expr> a) {
        int scale = sql.scale(a);
        Sql number = exact(a.getFirst());
        return fitting(Sql.call("round", number, Sql.atom(String.valueOf(scale))), number, scale);
    }

    /// The number as one of that type where no digit is lost, else null.
    private Sql narrow(Expr value, Type wanted) {
        if (!(wanted instanceof Type.Decimal(int precision, int scale))) {
            throw new IllegalStateException("no decimal: " + wanted.label());
        }
        Sql number = exact(value);
        Type.Decimal own = value.type() instanceof Type.Decimal decimal ? decimal : new Type.Decimal(19, 0);
        List<String> conditions = new ArrayList<>();
        if (own.precision() - own.scale() > precision - scale) {
            String most = "9".repeat(precision - scale) + (scale == 0 ? "" : "." + "9".repeat(scale));
            String least = most.startsWith(".") ? "0" + most : most;
            conditions.add(number.at(Sql.OTHER) + " BETWEEN -" + least + " AND " + least);
        }
        if (own.scale() > scale) {
            conditions.add(
                    Sql.infix(Sql.call("round", number, Sql.atom(String.valueOf(scale))), "=", number, Sql.COMPARE)
                            .text());
        }
        Sql cast = sql.tryCast(number, wanted).orElseGet(() -> Sql.atom(sql.cast(number.text(), wanted)));
        return conditions.isEmpty()
                ? Sql.atom(sql.cast(number.text(), wanted))
                : Sql.caseWhen(Sql.atom(String.join(" AND ", conditions)), cast);
    }

    /// The number as an exact one.
    private Sql exact(Expr number) {
        boolean whole = number.type() instanceof Type.Int || number instanceof Expr.Literal(Long _, Type _);
        return whole ? Sql.atom(sql.cast(sql.sql(number).text(), new Type.Decimal(19, 0))) : sql.sql(number);
    }

    /// A rounded number as `decimal(18, scale)`, null where it does not fit.
    Sql fitting(Sql rounded, Sql bare, int scale) {
        Type type = new Type.Decimal(PRECISION, scale);
        return sql.tryCast(bare, type)
                .orElseGet(() -> Sql.caseWhen(
                        Sql.atom(Sql.call("abs", rounded).text() + " < 1" + "0".repeat(PRECISION - scale)),
                        Sql.atom(sql.cast(rounded.text(), type))));
    }

    private Sql toWhole(String function, Expr number) {
        Sql whole = Sql.call(function, sql.sql(number));
        boolean fits = number.type() instanceof Type.Decimal(int precision, int scale) && precision - scale < 18;
        if (fits) {
            return Sql.atom(sql.cast(whole.text(), Type.INTEGER));
        }
        return sql.tryCast(whole, Type.INTEGER)
                .orElseGet(() -> Sql.caseWhen(
                        Sql.atom(whole.text() + " BETWEEN -9223372036854775808 AND 9223372036854775807"),
                        Sql.atom(sql.cast(whole.text(), Type.INTEGER))));
    }

    private Sql divide(List<Expr> a) {
        int scale = sql.scale(a);
        boolean never = a.get(1) instanceof Expr.Literal(Number divisor, Type _) && divisor.doubleValue() == 0;
        if (never) {
            return sql.literal(null, new Type.Decimal(PRECISION, scale));
        }
        Sql quotient = sql.exactQuotient(a.get(0), a.get(1), scale);
        Sql fitted = fitting(quotient, quotient, scale);
        boolean sure = a.get(1) instanceof Expr.Literal;
        return sure ? fitted : Sql.caseWhen(Sql.atom(sql.sql(a.get(1)).at(Sql.OTHER) + " <> 0"), fitted);
    }

    /// The quotient in whole numbers: both sides are brought to whole numbers, and half of the divisor is added
    /// before dividing towards zero. `wide` is the type of whole numbers that hold 38 digits.
    ///
    /// @return `%s` stands for the quotient in units of the last digit
    static Sql roundedQuotient(SqlLanguage sql, Expr dividend, Expr divisor, int scale, String wide) {
        int up = scale + scaleOf(divisor) - scaleOf(dividend);
        String over = whole(sql, dividend, Math.max(up, 0), wide);
        String under = whole(sql, divisor, Math.max(-up, 0), wide);
        if (digits(dividend) + Math.max(up, 0) > 37 || digits(divisor) + Math.max(-up, 0) > 37) {
            throw sql.cannot(
                    "the numbers have too many digits to be divided exactly.", "Round them first: round(…, 2).");
        }
        String half = "CASE WHEN (" + over + " < 0) = (" + under + " < 0) THEN " + under + " ELSE -" + under + " END";
        return Sql.atom(sql.quotient("(2 * " + over + " + " + half + ")", "(2 * " + under + ")"));
    }

    private static String whole(SqlLanguage sql, Expr number, int zeros, String wide) {
        if (number instanceof Expr.Literal(Number value, Type _)) {
            java.math.BigDecimal exact = new java.math.BigDecimal(value.toString());
            return "CAST(" + exact.scaleByPowerOfTen(scaleOf(number) + zeros).toBigInteger() + " AS " + wide + ")";
        }
        int all = scaleOf(number);
        String text = sql.widened(number, new Type.Decimal(38, all)).at(Sql.PRODUCT);
        // A product keeps the digits after the point, for which there is no room beside so many before it.
        boolean byDigits = all > 0 && digits(number) + all > 38 && wide.equals("HUGEINT");
        String cast = all == 0
                ? String.format(Locale.ROOT, "CAST(%s AS %s)", sql.sql(number).text(), wide)
                : byDigits
                        ? String.format(
                                Locale.ROOT,
                                "CAST(replace(CAST(CAST(%s AS DECIMAL(38, %d)) AS VARCHAR), '.', '') AS %s)",
                                sql.sql(number).text(),
                                all,
                                wide)
                        : String.format(Locale.ROOT, "CAST(%s * 1%s AS %s)", text, "0".repeat(all), wide);
        return zeros == 0 ? cast : "(" + cast + " * CAST(1" + "0".repeat(zeros) + " AS " + wide + "))";
    }

    private static int scaleOf(Expr number) {
        return number.type() instanceof Type.Decimal(int _, int scale) ? scale : 0;
    }

    private static int digits(Expr number) {
        return number.type() instanceof Type.Decimal(int precision, int _) ? precision : 19;
    }

    /// A number out of a text that looks like one; none out of any other.
    ///
    /// @param pattern a condition with a place for the text
    static Sql cast(SqlLanguage sql, Expr text, String pattern, String cast) {
        return Sql.caseWhen(
                Sql.atom(String.format(Locale.ROOT, pattern, sql.sql(text).at(Sql.OTHER))), Sql.atom(cast));
    }
}
