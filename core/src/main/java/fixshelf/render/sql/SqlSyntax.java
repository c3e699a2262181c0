package fixshelf.render.sql;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.Language;
import fixshelf.render.TypeNames;
import fixshelf.table.Aggregate;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import fixshelf.type.Visible;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/// How SQL languages write values, names and types.
public abstract class SqlSyntax implements Language {
    private static final Set<String> KEYWORDS = Set.of(
            ("case when then else end and or not is null in like rlike regexp glob escape create replace function returns"
                            + " language return macro as cast try_cast true false default immutable parallel safe distinct"
                            + " from between collate select lambda with recursive union all where temporary deterministic"
                            + " no sql both leading trailing convert using")
                    .split(" "));

    private static final Pattern PLAIN_TEXT = Pattern.compile("[ -~]*");
    private static final Pattern PLAIN_NAME = Pattern.compile("[a-z_][a-z0-9_]*");

    SqlSyntax() {}

    /// A value, written as `value`, as one of that type.
    public final String cast(String value, Type type) {
        return "CAST(" + value + " AS " + typeName(type) + ")";
    }

    @Override
    public Set<String> keywords() {
        return KEYWORDS;
    }

    abstract TypeNames types();

    /// How many tables a query can name in its WITH.
    int mostNamedTables() {
        return Integer.MAX_VALUE;
    }

    String typeName(Type type) {
        if (type.isFixed()) {
            throw notYetKnown();
        }
        return types().of(type);
    }

    /// A refusal of this language; it ends the rendering of the fix.
    final ProblemException cannot(String why, String todo) {
        return new ProblemException(Problem.about(Code.CANNOT_SAY, title(), title() + " cannot say it: " + why, todo));
    }

    Sql literal(@Nullable Object value, Type type) {
        return switch (value) {
            case null ->
                type instanceof Type.Unknown ? Sql.atom("NULL") : Sql.atom("CAST(NULL AS " + typeName(type) + ")");
            case String text -> Sql.atom(text(text));
            case Boolean truth -> Sql.atom(truth ? "TRUE" : "FALSE");
            case BigDecimal number -> number(number.toPlainString());
            case Long number -> number(number.toString());
            case Double number -> approximate(Literals.print(number));
            case LocalDate day -> day(day);
            case LocalDateTime time -> time(Literals.time(time));
            default -> throw new IllegalStateException("no literal for " + value.getClass());
        };
    }

    /// A constant day.
    Sql day(LocalDate day) {
        return Sql.atom("DATE '" + day + "'");
    }

    /// A constant time, given as `2026-02-07 10:12:00`.
    Sql time(String time) {
        return Sql.atom("TIMESTAMP '" + time + "'");
    }

    /// A constant floating-point number, given as `1.5e0`.
    Sql approximate(String digits) {
        return number(digits);
    }

    static Sql number(String digits) {
        return new Sql(digits, digits.startsWith("-") ? Sql.OTHER : Sql.ATOM);
    }

    /// A text; what cannot be seen in it is written by its number: `('a' || chr(9) || 'b')`.
    String text(String text) {
        if (PLAIN_TEXT.matcher(text).matches()) {
            return quoted(text);
        }
        List<String> pieces = new ArrayList<>();
        StringBuilder run = new StringBuilder();
        text.codePoints().forEach(c -> {
            if (c == ' ' || !Visible.isInvisible(c)) {
                run.appendCodePoint(c);
            } else {
                flush(run, pieces);
                pieces.add(character() + "(" + c + ")");
            }
        });
        flush(run, pieces);
        return switch (pieces.size()) {
            case 0 -> quoted("");
            case 1 -> pieces.getFirst();
            default -> "(" + String.join(joining(), pieces) + ")";
        };
    }

    /// The sign between texts that are joined.
    String joining() {
        return " || ";
    }

    /// A text without invisible characters.
    String quoted(String text) {
        return "'" + text.replace("'", "''") + "'";
    }

    private void flush(StringBuilder run, List<String> pieces) {
        if (!run.isEmpty()) {
            pieces.add(quoted(run.toString()));
            run.setLength(0);
        }
    }

    /// The function that gives a character by its number.
    String character() {
        return "chr";
    }

    /// A name, in quotes where it needs them; one that would be cut or refused is a [ProblemException].
    public String identifier(String name) {
        if (tooLong(name)) {
            throw cannot("the name " + name.substring(0, 20) + "… is too long for it.", "Choose a shorter name.");
        }
        objection(name).ifPresent(why -> {
            throw cannot(why, "Rename it.");
        });
        boolean plain = PLAIN_NAME.matcher(name).matches() && !ReservedWords.SQL.contains(name);
        String quote = quote();
        return plain ? name : quote + name.replace(quote, quote + quote) + quote;
    }

    /// The sign around names that need one.
    String quote() {
        return "\"";
    }

    /// Why the language would refuse a name that is short enough, or lose it.
    Optional<String> objection(String name) {
        return Optional.empty();
    }

    /// Whether the language would cut or refuse a name.
    boolean tooLong(String name) {
        return false;
    }

    /// The refusal of a type that only exists while code is written.
    final ProblemException notYetKnown() {
        return cannot(
                "a list or a mapping comes through a parameter.",
                "Copy it as an expression, with the values filled in.");
    }

    /// The sum of whole or exact numbers, missing where it does not fit its type; `over` writes the call, maybe over a
    /// window.
    String sum(String number, Type type, UnaryOperator<String> over) {
        if (!type.equals(Type.INTEGER)) {
            return cast(over.apply("sum(" + number + ")"), Aggregate.SUM.result(type));
        }
        String total = over.apply("sum(" + cast(number, new Type.Decimal(38, 0)) + ")");
        return "CASE WHEN " + total + " BETWEEN -9223372036854775808 AND 9223372036854775807 THEN "
                + cast(total, Type.INTEGER) + " END";
    }

    /// The texts of a group with a separator between, in the order of `place`; missing when there is none.
    String listed(String text, String separator, String place) {
        return "string_agg(" + text + ", " + text(separator) + " ORDER BY " + place + ")";
    }

    /// The value of rows of which at most one has any.
    String onlyValue(String column, Type type, String over) {
        return "min(" + column + ") " + over;
    }

    /// Whether two keys are equal, or both missing.
    String sameOrMissing(String left, String right) {
        return "(" + left + " = " + right + " OR " + left + " IS NULL AND " + right + " IS NULL)";
    }
}
