package fixshelf.export;

import fixshelf.language.tree.Definition;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Language.Described;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Saves a whole shelf as a folder in a query language.
public final class Export {
    private Export() {}

    /// What is asked for.
    ///
    /// @param tests the cases as tests too
    /// @param prove how many made-up values each fix is tried on here first, beside its cases; 0 for no proof
    /// @param replace also files that were changed by hand
    /// @param jobs the jobs to save too, each in a file of its own
    /// @param tables the table fixes to save too, each as it is called over some table
    public record Wanted(boolean tests, int prove, boolean replace, List<JobCode> jobs, List<JobCode> tables) {
        public Wanted {
            jobs = List.copyOf(jobs);
            tables = List.copyOf(tables);
        }
    }

    /// What was written, and the fixes and jobs that the language cannot say, with the reason.
    public record Report(List<Path> files, List<String> refused) {}

    /// A fix that is exported.
    record Exported(FixPage page, Definition fix) {}

    /// Writes the files, all of them or, when one must not be replaced, none.
    public static Outcome<Report> write(Shelf shelf, Language language, Path folder, Wanted wanted) {
        List<String> refused = new ArrayList<>();
        List<Exported> fixes = fixes(shelf, language, refused);
        List<MadeFile> files = new ArrayList<>(files(language, folder, fixes, wanted.tests()));
        files.addAll(jobs(language, folder.resolve("jobs"), wanted.jobs(), refused));
        files.addAll(jobs(language, folder.resolve("tables"), wanted.tables(), refused));
        if (wanted.prove() > 0) {
            String proven =
                    Proven.write(shelf, language, fixes, files.getFirst().number(), wanted.prove());
            if (proven.isEmpty()) {
                refused.add("proven.txt: " + language.title() + " is not here to be tried.");
            } else {
                files.add(new MadeFile(folder.resolve("proven.txt"), "#", proven));
            }
        }
        try {
            List<Problem> objections = new ArrayList<>();
            for (MadeFile file : files) {
                file.objection()
                        .filter(p -> !(wanted.replace() && p.code() == Code.DIVERGED))
                        .ifPresent(objections::add);
            }
            if (!objections.isEmpty()) {
                return Outcome.failed(objections);
            }
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    folder.toString(),
                    "A file there cannot be read: " + e.getMessage() + ".",
                    "Export into another folder."));
        }
        Map<Path, String> texts = new LinkedHashMap<>();
        files.forEach(f -> texts.put(f.file(), f.whole()));
        return PageFiles.write(texts).map(written -> new Report(written, refused));
    }

    static List<Exported> fixes(Shelf shelf, Language language, List<String> refused) {
        List<Exported> fixes = new ArrayList<>();
        for (FixPage page : shelf.fixes()) {
            Outcome<Definition> definition = shelf.definition(page);
            Outcome<String> code = definition.then(d -> language.definition(d, page.summary()));
            if (code.isPresent()) {
                fixes.add(new Exported(page, definition.get()));
            } else {
                refused.add(page.name() + ": " + code.problems().getFirst().sentence());
            }
        }
        return fixes;
    }

    /// How many cases of each fix the checks of a language run.
    static Map<String, Integer> cases(Shelf shelf, Language language) {
        List<Exported> fixes = fixes(shelf, language, new ArrayList<>());
        return switch (language.id()) {
            case "pandas" -> Pytest.cases(fixes);
            case "r" -> Testthat.cases(fixes);
            default -> SqlChecks.of(language, fixes).cases();
        };
    }

    private static List<MadeFile> jobs(Language language, Path folder, List<JobCode> jobs, List<String> refused) {
        List<MadeFile> files = new ArrayList<>();
        for (JobCode job : jobs) {
            Outcome<String> code = language.job(job);
            code.value()
                    .ifPresent(text -> files.add(
                            switch (language.id()) {
                                case "pandas" -> new MadeFile(folder.resolve(job.name() + ".py"), "#", text);
                                case "r" -> new MadeFile(folder.resolve(job.name() + ".R"), "#", text);
                                default -> new MadeFile(folder.resolve(job.name() + ".sql"), "--", text);
                            }));
            code.problems().forEach(p -> refused.add(job.name() + ": " + p.sentence()));
        }
        return files;
    }

    private static List<MadeFile> files(Language language, Path folder, List<Exported> fixes, boolean tests) {
        List<Described> described = fixes.stream()
                .map(f -> new Described(f.fix(), f.page().summary()))
                .toList();
        String module = language.module(described);
        MadeFile functions = functions(language, folder, module);
        List<MadeFile> files = new ArrayList<>(List.of(functions));
        if (tests) {
            switch (language.id()) {
                case "pandas" -> {
                    files.add(new MadeFile(folder.resolve("test_fixes.py"), "#", Pytest.of(fixes)));
                    files.add(new MadeFile(folder.resolve("conftest.py"), "#", ReceiptScripts.CONFTEST));
                }
                case "r" -> {
                    files.add(new MadeFile(folder.resolve("test-fixes.R"), "#", Testthat.of(fixes)));
                    files.add(new MadeFile(folder.resolve("receipt.R"), "#", ReceiptScripts.R));
                }
                default -> {
                    SqlChecks checks = SqlChecks.of(language, fixes);
                    files.add(new MadeFile(folder.resolve("checks.sql"), "--", checks.text()));
                    files.add(new MadeFile(
                            folder.resolve("receipt.sql"),
                            "--",
                            ReceiptScripts.sql(language, functions.number(), checks.queries(), checks.cases())));
                }
            }
        }
        return files;
    }

    /// The file of functions.
    static MadeFile functions(Language language, Path folder, String module) {
        return switch (language.id()) {
            case "pandas" -> new MadeFile(folder.resolve("fixes.py"), "#", module);
            case "r" -> new MadeFile(folder.resolve("fixes.R"), "#", module);
            case "sqlite" -> new MadeFile(folder.resolve("fixes.sql"), "--", SQLITE + module);
            default -> new MadeFile(folder.resolve("fixes.sql"), "--", module);
        };
    }

    private static final String SQLITE =
            "-- Needs no more than SQLite 3.40 knows; its parser refuses expressions that are nested very deep, later ones do not.\n";
}
