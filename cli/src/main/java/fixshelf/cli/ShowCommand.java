package fixshelf.cli;

import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.problem.SourceText;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.PlannedJob;
import fixshelf.work.TableFixCode;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "show",
        mixinStandardHelpOptions = true,
        description = "Print a fix or a job as code of a query language, ready to paste.")
final class ShowCommand extends ShelfOption {
    @Parameters(paramLabel = "NAME", description = "The fix, the table fix, or the job.")
    String name = "";

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            description = "duckdb, postgresql, pandas … See fixshelf engines. The page itself when left out.")
    String languageId = "";

    @Option(
            names = "--expression",
            description = "As an expression over columns called like the parameters, instead of a function.")
    boolean expression;

    @Option(
            names = "--on",
            paramLabel = "DATASET",
            description = "A table fix over this dataset or job; over the table of its first case when left out.")
    String on = "";

    @Option(
            names = "--with",
            paramLabel = "BLANKS",
            description = "What it is called with there, as in a line: 'keys: [visit_no], moment: recorded_at'.")
    String with = "";

    @Override
    public Integer call() {
        return onShelf(this::show);
    }

    private int show(Shelf shelf) {
        if (languageId.isEmpty()) {
            return page(shelf);
        }
        Optional<Language> language = Languages.find(languageId);
        if (language.isEmpty()) {
            return unknown("language", languageId, Languages.ids());
        }
        Optional<FixPage> page = shelf.fix(name);
        Optional<JobPage> job = shelf.job(name);
        Optional<TableFixPage> table = shelf.tableFix(name);
        if (page.isEmpty() && job.isEmpty() && table.isEmpty()) {
            return unknown("fix or job", name, names(shelf));
        }
        if ((table.isEmpty() || on.isEmpty()) && !(on + with).isEmpty()) {
            err().println("Only a table fix is shown --on a dataset, --with something.");
            return Output.WRONG_USE;
        }
        Outcome<String> code = page.map(p -> fix(shelf, p, language.get()))
                .or(() -> table.map(
                        t -> (on.isEmpty() ? TableFixCode.ofCase(shelf, t) : TableFixCode.over(shelf, t, on, with))
                                .then(c -> language.get().job(c))))
                .orElseGet(() -> PlannedJob.plan(shelf, job.orElseThrow(), Map.of())
                        .then(planned -> language.get().job(planned.code(shelf))));
        if (!code.isPresent()) {
            return Output.problems(out(), err(), code.problems(), json);
        }
        if (json) {
            Output.json(
                    out(),
                    Output.object()
                            .put(page.isPresent() || table.isPresent() ? "fix" : "job", name)
                            .put("language", languageId)
                            .put("code", code.get()));
        } else {
            out().println(code.get().stripTrailing());
        }
        return Output.FINE;
    }

    /// The page for reading, as its author wrote it.
    private int page(Shelf shelf) {
        Optional<SourceText> source = shelf.fix(name)
                .map(FixPage::source)
                .or(() -> shelf.tableFix(name).map(TableFixPage::source))
                .or(() -> shelf.job(name).map(JobPage::source))
                .or(() -> shelf.dataset(name).map(d -> d.source()));
        if (source.isEmpty()) {
            return unknown("fix, job or dataset", name, names(shelf));
        }
        if (json) {
            Output.json(
                    out(),
                    Output.object()
                            .put("name", name)
                            .put("file", source.get().name())
                            .put("page", source.get().text()));
        } else {
            out().println(source.get().text().stripTrailing());
        }
        return Output.FINE;
    }

    private Outcome<String> fix(Shelf shelf, FixPage page, Language language) {
        return shelf.definition(page)
                .then(fix -> expression
                        ? language.expression(Inliner.call(
                                fix,
                                fix.parameters().stream()
                                        .map(p -> p.fallback()
                                                .<Expr>map(f -> f)
                                                .orElse(new Expr.Name(p.name(), p.type())))
                                        .toList()))
                        : language.definition(fix, page.summary()));
    }
}
