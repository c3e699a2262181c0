package fixshelf.render;

import fixshelf.plan.Step;
import fixshelf.type.Column;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/// A job as languages write it: lines that work on a table with the rows of its source.
///
/// @param about what the job is for, in a sentence
/// @param source the table, or data frame, with the columns of the source as text
/// @param lines the lines after the one that reads
public record JobCode(String name, String about, String source, List<Column> columns, List<Line> lines) {
    public JobCode {
        columns = List.copyOf(columns);
        lines = List.copyOf(lines);
    }

    /// @param number as it is shown, from 1
    /// @param sentence what it does, in plain words
    public record Line(int number, String sentence, Step step) {}

    /// Whether a line needs to know the place of each row in the source.
    public boolean needsPlaces() {
        return lines.stream().anyMatch(l -> l.step() instanceof Step.KeepOne);
    }

    /// The columns that come out.
    public List<Column> result() {
        return lines.isEmpty() ? columns : lines.getLast().step().columns();
    }

    /// A name that no column has at any line, for the place of each row in the source.
    public String placeName() {
        return free("row_no");
    }

    /// A name that starts with `wanted`, and is no column at any line.
    String free(String wanted) {
        String name = wanted;
        while (isTaken(name)) {
            name = name + "_";
        }
        return name;
    }

    private boolean isTaken(String name) {
        return Stream.concat(columns.stream(), lines.stream().flatMap(l -> l.step().columns().stream()))
                .anyMatch(c -> c.name().toLowerCase(Locale.ROOT).equals(name));
    }
}
