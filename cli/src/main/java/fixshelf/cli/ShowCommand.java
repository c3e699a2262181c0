package fixshelf.cli;

import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "show",
        mixinStandardHelpOptions = true,
        description = "Print a fix as code of a query language, ready to paste.")
final class ShowCommand extends ShelfOption {
    @Parameters(paramLabel = "FIX", description = "The fix.")
    String name = "";

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            required = true,
            description = "duckdb, postgresql, pandas … See fixshelf engines.")
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
        Optional<Language> language = Languages.find(languageId);
        if (language.isEmpty()) {
            return unknown("language", languageId, Languages.ids());
        }
        Optional<FixPage> page = shelf.fix(name);
        if (page.isEmpty()) {
            return unknown(
                    "fix", name, shelf.fixes().stream().map(FixPage::name).toList());
        }
        Outcome<String> code = shelf.definition(page.get())
                .then(fix -> expression
                        ? language.get()
                                .expression(Inliner.call(
                                        fix,
                                        fix.parameters().stream()
                                                .map(p -> p.fallback()
                                                        .<Expr>map(f -> f)
                                                        .orElse(new Expr.Name(p.name(), p.type())))
                                                .toList()))
                        : language.get().definition(fix, page.get().summary()));
        if (!code.isPresent()) {
            return Output.problems(out(), err(), code.problems(), json);
        }
        if (json) {
            Output.json(
                    out(),
                    Output.object()
                            .put("fix", page.get().name())
                            .put("language", languageId)
                            .put("code", code.get()));
        } else {
            out().println(code.get().stripTrailing());
        }
        return Output.FINE;
    }
}
