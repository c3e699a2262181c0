package fixshelf.work;

import fixshelf.plan.Operation;
import fixshelf.plan.Sentences;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.render.JobCode;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A table fix as languages write it: with a table, as its columns are parameters.
public final class TableFixCode {
    private TableFixCode() {}

    /// As the first of its cases that gives a table calls it, over the table of that case.
    ///
    /// @return a problem where it has none, or where that cannot be planned
    public static Outcome<JobCode> ofCase(Shelf shelf, TableFixPage page) {
        Operation fix = LoaderCases.ready(shelf, page);
        Outcome<List<OperationExamples.Example>> examples = OperationExamples.of(fix, shelf.callables());
        Optional<OperationExamples.Example> first =
                examples.get().stream().filter(e -> e.decided().isEmpty()).findFirst();
        if (first.isEmpty() && !examples.problems().isEmpty()) {
            return Outcome.failed(examples.problems());
        }
        return first.map(e -> Outcome.of(code(shelf, page, e)))
                .orElseGet(() -> Outcome.failed(Problem.about(
                        Code.NO_SUCH,
                        page.name(),
                        page.name() + " has no case that gives a table, so that nothing says what it is called with.",
                        "Add a case, or say over which dataset, and with what.")));
    }

    /// All table fixes of the shelf but loaders, which need what they read; `refused` takes those
    /// without a case that gives a table, with the reason.
    public static List<JobCode> all(Shelf shelf, List<String> refused) {
        List<JobCode> codes = new ArrayList<>();
        shelf.tableFixes().stream().filter(t -> !t.isLoader()).forEach(page -> {
            Outcome<JobCode> code = ofCase(shelf, page);
            code.value().ifPresent(codes::add);
            if (!code.isPresent()) {
                refused.add(page.name() + ": " + code.problems().getFirst().sentence());
            }
        });
        return codes;
    }

    private static JobCode code(Shelf shelf, TableFixPage page, OperationExamples.Example example) {
        String about = page.title() + ", as in its case “" + example.example().title() + "”.";
        return new JobCode(
                page.name(),
                about,
                example.code().sources(),
                example.code().lines().stream()
                        .map(l -> new JobCode.Line(
                                l.number(), Sentences.plain(l.step().line(), shelf.callables()), l.step()))
                        .toList());
    }

    /// Over a dataset or a job of the shelf.
    ///
    /// @param blanks what it is called with, as on a page: `keys: [visit_no], moment: recorded_at`
    public static Outcome<JobCode> over(Shelf shelf, TableFixPage page, String source, String blanks) {
        String text = "job: " + page.name() + "\nabout: '" + page.title().replace("'", "''") + ".'\nlines:\n  - read: "
                + source + "\n  - " + page.name() + ": {" + blanks + "}\n";
        JobPage job = JobPages.read(Path.of(page.name() + ".yaml"), new SourceText(page.name(), text));
        Optional<Problem> wrong =
                job.problems().stream().filter(Problem::isError).findFirst();
        return wrong.isPresent()
                ? Outcome.failed(wrong.get())
                : PlannedJob.plan(shelf, job, Map.of()).map(p -> p.code(shelf));
    }
}
