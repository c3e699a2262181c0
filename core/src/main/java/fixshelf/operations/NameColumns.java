package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.List;
import java.util.Locale;

/// Names that can be typed.
final class NameColumns extends BuiltIn {
    static final Blank<String> STYLE = Blank.usually(
            "style",
            ValueKinds.choice("snake_case", "lower", "trimmed"),
            "snake_case",
            "snake_case: small letters and _; lower: small letters; trimmed: no blanks at the ends.");

    NameColumns() {
        super(
                "name_columns",
                "Write column names in {style}",
                new Meaning(
                        "Tidy headers: small letters, digits and _ in place of everything else.",
                        "",
                        "A column without a name is called column_ and its place.",
                        "Rows stay as they stand.",
                        "Of columns that would be called the same, later ones get _2, _3.",
                        "Types stay.",
                        "Repeats get numbers.",
                        "",
                        "The same in all."),
                List.of(STYLE),
                List.of(new TableExample(
                        "Signs become _",
                        Table.of("Visit No | Parts £", "'1' | '2'"),
                        "name_columns: snake_case",
                        Table.of("visit_no | parts", "'1' | '2'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<String> names = given.fields().stream()
                .map(f -> styled(f.name(), given.get(STYLE)))
                .toList();
        return new Resolution.Done(new Relation.Pick(given.before(), new Shape(Naming.named(given.fields(), names))));
    }

    private static String styled(String name, String style) {
        String bare = name.strip();
        if (!style.equals("snake_case")) {
            return style.equals("lower") ? bare.toLowerCase(Locale.ROOT) : bare;
        }
        String plain = java.text.Normalizer.normalize(bare, java.text.Normalizer.Form.NFKD)
                .replaceAll("\\p{M}+", "")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{Nd}]+", "_")
                .replaceAll("^_+|_+$", "");
        return plain.matches("[0-9].*") ? "_" + plain : plain;
    }
}
