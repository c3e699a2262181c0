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
        List<Problem> problems) {
    public TableFixPage {
        parameters = List.copyOf(parameters);
        lines = List.copyOf(lines);
        cases = List.copyOf(cases);
        problems = List.copyOf(problems);
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
