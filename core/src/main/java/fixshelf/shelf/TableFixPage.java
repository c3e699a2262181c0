package fixshelf.shelf;

import fixshelf.plan.Blank;
import fixshelf.plan.TableExample;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.nio.file.Path;
import java.util.List;

/// A table fix as its page says it: lines over a table, with parameters, documentation and cases.
///
/// @param reads the sentence of a line that calls it, with `{parameter}` for its blanks
/// @param prose what it is for
/// @param parameters as the blanks that a call fills
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
        List<JobPage.PlacedLine> lines,
        List<TableExample> cases,
        List<TablePromise> promises,
        List<Problem> problems,
        boolean showsOwn) {
    public TableFixPage {
        parameters = List.copyOf(parameters);
        lines = List.copyOf(lines);
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
                this.lines.subList(0, lines),
                cases,
                promises,
                problems,
                true);
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
