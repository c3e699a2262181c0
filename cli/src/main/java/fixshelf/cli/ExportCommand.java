package fixshelf.cli;

import fixshelf.export.Export;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import fixshelf.work.PlannedJob;
import fixshelf.work.TableFixCode;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "export",
        mixinStandardHelpOptions = true,
        description = "Save the whole shelf, fixes and jobs, as a folder in a query language, with its cases as tests.")
final class ExportCommand extends ShelfOption {
    @Option(names = "--in", paramLabel = "LANGUAGE", required = true, description = "See fixshelf engines.")
    String languageId = "";

    @Option(names = "--to", paramLabel = "DIR", required = true, description = "The folder; made when it is not there.")
    Path folder = Path.of(".");

    @Option(
            names = "--tests",
            description = "Write the cases as tests too: pytest, testthat, or a query of failing checks.")
    boolean tests;

    @Option(
            names = "--prove",
            paramLabel = "N",
            arity = "0..1",
            fallbackValue = "200",
            description =
                    "Run the cases, and N made-up values for each fix, here first; proven.txt in the folder says what came of it.")
    int prove;

    @Option(names = "--replace", description = "Replace files that were changed by hand since they were made.")
    boolean replace;

    @Override
    public Integer call() {
        wantCount("--prove", prove);
        return onShelf(this::export);
    }

    private int export(Shelf shelf) {
        Optional<Language> language = Languages.find(languageId);
        if (language.isEmpty()) {
            return unknown("language", languageId, Languages.ids());
        }
        List<String> notPlanned = new ArrayList<>();
        Export.Wanted wanted = new Export.Wanted(
                tests, prove, replace, PlannedJob.codes(shelf, notPlanned), TableFixCode.all(shelf, notPlanned));
        Outcome<Export.Report> report = Export.write(shelf, language.get(), folder.toAbsolutePath(), wanted);
        if (!report.isPresent()) {
            return Output.problems(out(), err(), report.problems(), json);
        }
        if (json) {
            var document = Output.object();
            report.get().files().forEach(f -> document.withArray("files").add(f.toString()));
            report.get().refused().forEach(r -> document.withArray("refused").add(r));
            notPlanned.forEach(r -> document.withArray("refused").add(r));
            Output.json(out(), document);
            return Output.FINE;
        }
        report.get().files().forEach(f -> out().println("wrote " + f));
        report.get().refused().forEach(r -> out().println("left out " + r));
        notPlanned.forEach(r -> out().println("left out " + r));
        return Output.FINE;
    }
}
