package fixshelf.language.checking;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
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

    private static final Pattern TIME = Pattern.compile(
            "(?i)timestamp +'([0-9]{4}-[0-9]{2}-[0-9]{2}) ([0-9]{2}:[0-9]{2}:[0-9]{2}(?:\\.[0-9]{1,6})?)'");
    private static final Pattern SEVERAL = Pattern.compile("(?is)(array|map) *\\[(.+)]");

    /// The constant that a text writes. The common forms, of which a shelf has thousands in its cases, are read
    /// without the parser.
    public static Outcome<Optional<Expr.Literal>> read(String name, String text) {
        String bare = text.strip();
        return simple(bare)
                .or(() -> several(bare))
                .map(literal -> Outcome.of(Optional.of(literal)))
                .orElseGet(() -> parsed(name, text));
    }

    /// How a constant of a type is written, as what to do where there is none.
    public static String example(Type type) {
        return switch (type) {
            case Type.ListOf(Type element) -> {
                String one = written(element);
                yield "A list is written ARRAY[" + one + ", " + one + "].";
            }
            case Type.Mapping(Type from, Type to) ->
                "A mapping is written MAP[" + written(from) + ", " + written(to)
                        + "]: each value, then what it becomes.";
            case Type.Text _, Type.Unknown _ -> "Texts are written in '…', inside YAML as \"'…'\".";
            default -> "It is written as " + written(type) + ".";
        };
    }

    private static String written(Type type) {
        return switch (type) {
            case Type.Int _ -> "12";
            case Type.Decimal _ -> "12.50";
            case Type.Num _ -> "1.25e1";
            case Type.Bool _ -> "TRUE";
            case Type.Date _ -> "DATE '2026-02-07'";
            case Type.Timestamp _ -> "TIMESTAMP '2026-02-07 09:30:00'";
            case Type.Text _, Type.Unknown _, Type.ListOf _, Type.Mapping _ -> "'a'";
        };
    }

    private static Optional<Expr.Literal> simple(String bare) {
        if (isText(bare)) {
            String inside = bare.substring(1, bare.length() - 1);
            return Optional.of(Expr.Literal.text(inside.replace("''", "'")));
        }
        if (WHOLE.matcher(bare).matches()) {
            return Optional.of(Expr.Literal.integer(Long.parseLong(bare)));
        }
        if (EXACT.matcher(bare).matches()) {
            BigDecimal value = new BigDecimal(bare);
            Type type = new Type.Decimal(Math.max(value.precision(), value.scale()), value.scale());
            return Optional.of(new Expr.Literal(value, type));
        }
        return switch (bare.toUpperCase(Locale.ROOT)) {
            case "NULL" -> Optional.of(Expr.Literal.NULL);
            case "TRUE" -> Optional.of(Expr.Literal.truth(true));
            case "FALSE" -> Optional.of(Expr.Literal.truth(false));
            default -> day(bare).or(() -> time(bare));
        };
    }

    /// A list or a mapping of plain constants.
    private static Optional<Expr.Literal> several(String bare) {
        Matcher written = SEVERAL.matcher(bare);
        if (!written.matches()) {
            return Optional.empty();
        }
        List<Expr.Literal> values = new ArrayList<>();
        for (String piece : pieces(written.group(2))) {
            Optional<Expr.Literal> value = simple(piece.strip());
            if (value.isEmpty()) {
                return Optional.empty();
            }
            values.add(value.get());
        }
        Optional<Expr> made =
                written.group(1).equalsIgnoreCase("array") ? Constants.list(values) : Constants.mapping(values);
        return made.map(Expr.Literal.class::cast);
    }

    /// What stands between the commas that are in no quotes.
    private static List<String> pieces(String text) {
        List<String> pieces = new ArrayList<>();
        boolean quoted = false;
        int from = 0;
        for (int at = 0; at < text.length(); at++) {
            if (text.charAt(at) == '\'') {
                quoted = !quoted;
            } else if (text.charAt(at) == ',' && !quoted) {
                pieces.add(text.substring(from, at));
                from = at + 1;
            }
        }
        pieces.add(text.substring(from));
        return pieces;
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

    private static Optional<Expr.Literal> time(String text) {
        Matcher written = TIME.matcher(text);
        if (!written.matches() || written.group(1).startsWith("0000")) {
            return Optional.empty();
        }
        try {
            return Optional.of(
                    new Expr.Literal(LocalDateTime.parse(written.group(1) + "T" + written.group(2)), Type.TIMESTAMP));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }
}
