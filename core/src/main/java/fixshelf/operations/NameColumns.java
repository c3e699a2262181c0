package fixshelf.operations;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// Names that can be typed.
final class NameColumns extends BuiltIn {
    static final Blank<String> STYLE = Blank.usually(
            "style",
            ValueKinds.choice("snake_case", "title", "lower", "trimmed"),
            "snake_case",
            "snake_case: small letters and _, % and # as words; title: words with capitals and blanks between; lower: small letters; trimmed: no blanks at the ends.");
    static final Blank<Definition> BY = Blank.optional(
            "by", ValueKinds.FIX, "A fix that makes the new name out of the old one, instead of a style.");

    NameColumns() {
        super(
                "name_columns",
                "Write column names in {style}",
                new Meaning(
                        "Tidy headers: small letters, digits and _ in place of everything else.",
                        "",
                        "A column without a name is called column_ and its place.",
                        "Rows stay as they stand.",
                        "Of columns that would be called the same, later ones get _2, _3, but for names that another column has.",
                        "Types stay.",
                        "Repeats get numbers. Words begin where a capital follows a small letter: ShipTo is ship_to.",
                        "names: the columns that are called otherwise now, with what they were called.",
                        "Names that a fix makes are written out, as they were seen."),
                List.of(STYLE, BY),
                List.of(
                        new TableExample(
                                "Signs become _",
                                Table.of("Visit No | Parts £ | % done | #", "'1' | '2' | '3' | '4'"),
                                "name_columns: snake_case",
                                Table.of("visit_no | parts | percent_done | number", "'1' | '2' | '3' | '4'")),
                        new TableExample(
                                "Names that meet",
                                Table.of("Day | DAY_2 | day. | day!", "'1' | '2' | '3' | '4'"),
                                "name_columns: snake_case",
                                Table.of("day | day_2 | day_3 | day_4", "'1' | '2' | '3' | '4'")),
                        new TableExample(
                                "For readers",
                                Table.of("ShipTo | order_no | HTTPServer", "'1' | '2' | '3'"),
                                "name_columns: title",
                                Table.of("Ship To | Order No | HTTP Server", "'1' | '2' | '3'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Definition> fix = given.find(BY);
        if (fix.isPresent()) {
            return byFix(given, fix.get());
        }
        return named(
                given,
                given.fields().stream()
                        .map(f -> styled(f.name(), given.get(STYLE)))
                        .toList());
    }

    /// What a fix makes of the names is seen where it runs.
    private static Resolution byFix(Given given, Definition fix) {
        Field rows = given.helper("rows_before", Type.INTEGER);
        Relation one = new Relation.Group(
                given.before(), List.of(), List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        List<Computed> names = given.fields().stream()
                .map(f -> new Computed(
                        given.helper("name_" + f.id(), Type.TEXT), Given.through(fix, Expr.Literal.text(f.name()))))
                .toList();
        if (!fix.returns().equals(Type.TEXT)) {
            return Given.refused(
                    Code.WRONG_TYPE, fix.name() + " gives no text, and a name is one.", "Name another fix.");
        }
        return new Resolution.Asks(
                Given.without(new Relation.Compute(one, names), List.of(rows)),
                seen -> named(
                        given,
                        seen.getFirst().stream()
                                .map(n -> n == null ? "" : String.valueOf(n))
                                .toList()));
    }

    private static Resolution named(Given given, List<String> names) {
        List<Field> named = Naming.named(given.fields(), names);
        return new Resolution.Done(new Relation.Pick(given.before(), new Shape(named)), Naming.report(given, named));
    }

    private static String styled(String name, String style) {
        String bare = name.strip();
        return switch (style) {
            case "lower" -> bare.toLowerCase(Locale.ROOT);
            case "title" -> title(bare);
            case "snake_case" -> snake(bare);
            default -> bare;
        };
    }

    /// A blank where a word begins with a capital inside of a name.
    private static String parted(String name) {
        return name.replaceAll("(?<=[\\p{Ll}\\p{Nd}])(?=\\p{Lu})|(?<=\\p{Lu})(?=\\p{Lu}\\p{Ll})", " ");
    }

    private static String snake(String name) {
        String plain = java.text.Normalizer.normalize(name, java.text.Normalizer.Form.NFKD)
                .replaceAll("\\p{M}+", "")
                .replace("%", " percent ")
                .replace("#", " number ");
        String joined = parted(plain)
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{Nd}]+", "_")
                .replaceAll("^_+|_+$", "");
        return joined.matches("[0-9].*") ? "_" + joined : joined;
    }

    private static String title(String name) {
        return Arrays.stream(
                        parted(name.replaceAll("[\\s_\\p{Z}]+", " ")).strip().split(" "))
                .map(w -> w.isEmpty()
                        ? w
                        : w.substring(0, w.offsetByCodePoints(0, 1)).toUpperCase(Locale.ROOT)
                                + w.substring(w.offsetByCodePoints(0, 1)))
                .collect(Collectors.joining(" "));
    }
}
