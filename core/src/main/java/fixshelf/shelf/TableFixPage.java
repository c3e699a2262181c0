package fixshelf.shelf;

import fixshelf.plan.Blank;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableFix;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.type.Column;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/// A table fix as its page says it: lines over a table, with parameters, documentation and cases. A loader is one that
/// has no table given: its first line reads.
///
/// @param reads the sentence of a line that calls it, with `{parameter}` for its blanks
/// @param prose what it is for
/// @param parameters as the blanks that a call fills
/// @param read the first line of a loader, which is not among the others; empty for a table fix
/// @param returns the columns that a loader says it gives; none where it does not say
/// @param promises what holds for every table
/// @param showsOwn whether columns of its own come out too, for who writes it
public record TableFixPage(
        Path file,
        SourceText source,
        String name,
        String version,
        String reads,
        String title,
        String prose,
        List<Blank<?>> parameters,
        Optional<JobPage.PlacedLine> read,
        List<JobPage.PlacedLine> lines,
        List<Column> returns,
        List<TableExample> cases,
        List<TablePromise> promises,
        List<Problem> problems,
        boolean showsOwn) {
    public TableFixPage {
        parameters = List.copyOf(parameters);
        lines = List.copyOf(lines);
        returns = List.copyOf(returns);
        cases = List.copyOf(cases);
        promises = List.copyOf(promises);
        problems = List.copyOf(problems);
    }

    /// The same fix with its first lines only, whose own columns come out.
    public TableFixPage upTo(int lines) {
        return new TableFixPage(
                file,
                source,
                name,
                version,
                reads,
                title,
                prose,
                parameters,
                read,
                this.lines.subList(0, lines),
                List.of(),
                cases,
                promises,
                problems,
                true);
    }

    public boolean isLoader() {
        return read.isPresent();
    }

    /// The lines as they stand on the page: the first of a loader reads.
    public List<JobPage.PlacedLine> allLines() {
        return Stream.concat(read.stream(), lines.stream()).toList();
    }

    /// What it is, for people.
    public String what() {
        return isLoader() ? "loader" : "table fix";
    }

    /// The call of its lines over a table, as a line of a job says it. That of a loader is for the table that its first
    /// line reads, and nobody else writes it.
    public String callOfLines() {
        return isLoader() ? TableFix.linesOf(name) : name;
    }

    /// The first sentence of the prose, for lists.
    public String summary() {
        String text = prose.strip().replaceAll("\\s+", " ");
        int end = text.indexOf(". ");
        return text.isEmpty() ? title : end < 0 ? text : text.substring(0, end + 1);
    }

    /// The sentence with a capital.
    public String sentence() {
        String text = reads.isBlank() ? name.replace('_', ' ') : reads;
        return Character.toUpperCase(text.charAt(0)) + text.substring(1);
    }
}
