package fixshelf.language.checking;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Constants as they are written in cases, blanks and defaults.
public final class WrittenConstants {
    private WrittenConstants() {}

    private static final Pattern WHOLE = Pattern.compile("-?[0-9]{1,18}");
    private static final Pattern EXACT = Pattern.compile("-?[0-9]{1,18}\\.[0-9]{1,18}");
    private static final Pattern DAY = Pattern.compile("(?i)date +'([0-9]{4}-[0-9]{2}-[0-9]{2})'");

    /// The constant that a text writes. The common forms, of which a shelf has thousands in its cases, are read
    /// without the parser.
    public static Outcome<Optional<Expr.Literal>> read(String name, String text) {
        String bare = text.strip();
        if (isText(bare)) {
            String inside = bare.substring(1, bare.length() - 1);
            return Outcome.of(Optional.of(Expr.Literal.text(inside.replace("''", "'"))));
        }
        if (WHOLE.matcher(bare).matches()) {
            return Outcome.of(Optional.of(Expr.Literal.integer(Long.parseLong(bare))));
        }
        if (EXACT.matcher(bare).matches()) {
            BigDecimal value = new BigDecimal(bare);
            Type type = new Type.Decimal(Math.max(value.precision(), value.scale()), value.scale());
            return Outcome.of(Optional.of(new Expr.Literal(value, type)));
        }
        return switch (bare.toUpperCase(Locale.ROOT)) {
            case "NULL" -> Outcome.of(Optional.of(Expr.Literal.NULL));
            case "TRUE" -> Outcome.of(Optional.of(Expr.Literal.truth(true)));
            case "FALSE" -> Outcome.of(Optional.of(Expr.Literal.truth(false)));
            default -> day(bare).map(day -> Outcome.of(Optional.of(day))).orElseGet(() -> parsed(name, text));
        };
    }

    /// Whether it is one text in quotes, in which every quote is written twice. No pattern is used: one that goes
    /// around for every character needs as much of the stack as the text is long.
    private static boolean isText(String bare) {
        int last = bare.length() - 1;
        if (last < 1 || bare.charAt(0) != '\'' || bare.charAt(last) != '\'') {
            return false;
        }
        for (int at = bare.indexOf('\'', 1); at < last; at = bare.indexOf('\'', at + 2)) {
            if (at < 0 || at + 1 == last || bare.charAt(at + 1) != '\'') {
                return false;
            }
        }
        return true;
    }

    /// As [#read], always with the parser.
    static Outcome<Optional<Expr.Literal>> parsed(String name, String text) {
        return ExpressionParser.parse(name, text, new Scope(Scope.Fixes.NONE)).map(Constants::value);
    }

    private static Optional<Expr.Literal> day(String text) {
        Matcher written = DAY.matcher(text);
        if (!written.matches() || written.group(1).startsWith("0000")) {
            return Optional.empty();
        }
        try {
            return Optional.of(new Expr.Literal(LocalDate.parse(written.group(1)), Type.DATE));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }
}
