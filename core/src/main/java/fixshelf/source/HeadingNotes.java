package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.type.ColumnNames;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/// What is worth saying of the first record of a delimited text: that it looks separated by something else, and which
/// names of columns are not as it says.
final class HeadingNotes {
    private static final List<String> SEPARATORS = List.of(";", ",", "\t", "|");
    private static final int MOST_NAMED = 5;

    private HeadingNotes() {}

    static List<String> of(ReadOptions options, List<String> fields) {
        List<String> notes = new ArrayList<>();
        // Without a separator each line is meant to be one value.
        if (fields.size() == 1 && !options.separator().isEmpty()) {
            SEPARATORS.stream()
                    .filter(s ->
                            !s.equals(options.separator()) && fields.getFirst().contains(s))
                    .findFirst()
                    .ifPresent(s -> notes.add("It reads as one column, and its first line looks separated by "
                            + shown(s) + ": separator: \"" + s.replace("\t", "\\t") + "\"."));
        }
        if (!options.heading()) {
            return notes;
        }
        List<String> names = ColumnNames.distinct(fields);
        List<String> unnamed = names(fields, names, true);
        List<String> numbered = names(fields, names, false);
        if (!unnamed.isEmpty()) {
            notes.add((unnamed.size() == 1 ? "A column has" : unnamed.size() + " columns have")
                    + " no name in the heading: " + shown(unnamed) + ".");
        }
        if (!numbered.isEmpty()) {
            notes.add((numbered.size() == 1
                            ? "A name of the heading repeats, and has"
                            : numbered.size() + " names of the heading repeat, and have")
                    + " a number: " + shown(numbered) + ".");
        }
        return notes;
    }

    /// The names of columns that are not those of the heading.
    private static List<String> names(List<String> fields, List<String> names, boolean blank) {
        return IntStream.range(0, fields.size())
                .filter(i -> fields.get(i).isBlank() == blank
                        && (blank || !names.get(i).equals(fields.get(i))))
                .mapToObj(names::get)
                .toList();
    }

    private static String shown(List<String> names) {
        return String.join(", ", names.subList(0, Math.min(MOST_NAMED, names.size())))
                + (names.size() > MOST_NAMED ? ", …" : "");
    }

    private static String shown(String separator) {
        return switch (separator) {
            case "\t" -> "tabs";
            case "," -> "commas";
            default -> "`" + separator + "`";
        };
    }
}
