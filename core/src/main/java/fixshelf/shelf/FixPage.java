package fixshelf.shelf;

import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.plan.FixOperation;
import fixshelf.plan.Operation;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A fix as its page says it. The page may have problems; what could be read is here all the same.
///
/// @param file where the page is or will be kept
/// @param reads the sentence for job lines, with `{parameter}` for blanks
/// @param title the first heading
/// @param prose the Markdown between the title and the body
/// @param body where the expression stands
/// @param purpose a condition over the parameters: where it is true, the fix makes a value missing on purpose
/// @param casesFrom where the table of cases begins, or the end of the page
public record FixPage(
        Path file,
        SourceText source,
        String name,
        String version,
        String reads,
        List<Parameter> parameters,
        Type returns,
        List<String> tags,
        List<Promise> promises,
        String title,
        Span proseSpan,
        Optional<Span> body,
        List<Case> cases,
        List<Problem> problems,
        int casesFrom,
        Optional<Span> purposeSpan,
        String purpose) {

    /// Whether a problem is about a case, so that the fix itself can be used all the same.
    boolean isAboutCase(Problem problem) {
        return problem.where().span().start() >= casesFrom;
    }

    /// A worked example that is also a test.
    ///
    /// @param arguments the cells that are filled, by parameter name in lower case
    /// @param expected the result
    /// @param cells the cells as they are written, by column
    /// @param span its row in the page
    public record Case(Map<String, Expr.Literal> arguments, Expr.Literal expected, List<String> cells, Span span) {}

    public String prose() {
        return source.text().substring(proseSpan.start(), proseSpan.end()).strip();
    }

    /// The first sentence of the prose, for lists.
    public String summary() {
        String plain = prose().replaceAll("\\s+", " ").replace("`", "");
        int end = plain.indexOf(". ");
        return end < 0 ? plain : plain.substring(0, end + 1);
    }

    public String bodyText() {
        return body.map(b -> source.text().substring(b.start(), b.end())).orElse("");
    }

    /// The purpose that the catalogue groups by: the first tag.
    public String group() {
        return tags.isEmpty() ? "other" : tags.getFirst();
    }

    /// The sentence of a job line up to its blank: `reads` without `{…}`, with a capital.
    public String sentence() {
        String plain = reads.isBlank() ? name.replace('_', ' ') + " in {" + "x}" : reads;
        return Character.toUpperCase(plain.charAt(0)) + plain.substring(1);
    }

    /// Its name, its parameters and what it gives, as the catalogue shows it.
    public String signature() {
        return withoutBody().signature();
    }

    /// As a line calls it, without asking what its body means.
    public Operation called() {
        return new FixOperation(withoutBody(), sentence());
    }

    private Definition withoutBody() {
        return new Definition(name, parameters, returns, new Body(List.of(), Expr.Literal.NULL));
    }
}
