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
    @Parameters(paramLabel = "NAME", description = "The fix, or the job.")
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
        if (page.isEmpty() && job.isEmpty()) {
            return unknown("fix or job", name, names(shelf));
        }
        Outcome<String> code = page.map(p -> fix(shelf, p, language.get()))
                .orElseGet(() -> PlannedJob.plan(shelf, job.orElseThrow(), Map.of())
                        .then(planned -> language.get().job(planned.code(shelf))));
        if (!code.isPresent()) {
            return Output.problems(out(), err(), code.problems(), json);
        }
        if (json) {
            Output.json(
                    out(),
                    Output.object()
                            .put(page.isPresent() ? "fix" : "job", name)
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
