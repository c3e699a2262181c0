package fixshelf.cli;

import fixshelf.fetch.Consent;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.Shelf;
import fixshelf.source.FileParts;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import picocli.CommandLine.Option;

/// What `read` takes where a file alone does not say how it is read, or there is none: a database, a server, a page of
/// the web.
final class ReadParts {
    @Option(
            names = "--field",
            paramLabel = "NAME=VALUE",
            description =
                    "A field of the dataset page, instead of what was found: separator=; or encoding=windows-1252,"
                            + " sheet=March, table=loans, query=SELECT ..., user=reader, password_from=VARIABLE.")
    Map<String, String> fields = new LinkedHashMap<>();

    /// What is read, and how.
    ///
    /// @param shelf with the page that reads it
    /// @param place outside of the shelf, which who names it allows by that
    record Read(Shelf shelf, DatasetPage page, Optional<Consent.Place> place) {
        /// All tables of a page of the web or of a server.
        Outcome<List<FileParts.Part>> parts() {
            place.ifPresent(Consent::forNow);
            return Datasets.parts(shelf, page.options());
        }

        Outcome<SourceFile> open() {
            place.ifPresent(Consent::forNow);
            return Datasets.openNamed(shelf, page.name());
        }
    }

    /// Whether what is read is more than a file of its own.
    boolean isWanted(String typed) {
        return ReadOptions.isAddress(typed) || !fields.isEmpty();
    }

    /// What the address or the file would be read as, by a dataset of this name; where it is empty, of that of its
    /// table.
    Outcome<Read> of(Shelf shelf, String typed, String name) {
        // Nothing that could be a password is printed.
        String shown = typed.replaceFirst("//[^/@]*@", "//…@");
        Optional<String> said =
                Stream.of("read", "dataset").filter(fields::containsKey).findFirst();
        if (said.isPresent()) {
            return Outcome.failed(Problem.about(
                    Code.BAD_FIELD,
                    shown,
                    said.get() + " is no --field.",
                    "What is read stands alone, and --keep gives the name."));
        }
        return base(shelf, typed).then(base -> {
            Map<String, String> all = new LinkedHashMap<>();
            ReadOptions.kindOfAddress(typed)
                    .filter(_ -> !fields.containsKey("kind"))
                    .ifPresent(kind -> all.put("kind", kind));
            fields.forEach((field, value) -> all.put(field.strip(), value));
            String called = name.isBlank() ? named(typed) : name;
            Path file = shelf.root().resolve("datasets/" + called + ".yaml");
            DatasetPage page =
                    DatasetPages.with(called, file, base, all, shelf.settings().nullWords());
            Shelf with = shelf.with(page);
            List<Problem> wrong = page.problems().stream()
                    .filter(Problem::isError)
                    .map(p -> Problem.about(p.code(), shown, p.what(), p.todo()))
                    .toList();
            return wrong.isEmpty()
                    ? Outcome.of(new Read(with, page, Datasets.place(with, called)))
                    : Outcome.failed(wrong);
        });
    }

    private static Outcome<ReadOptions> base(Shelf shelf, String typed) {
        if (ReadOptions.isAddress(typed)) {
            return ReadOptions.kindOfAddress(typed).isPresent()
                    ? Outcome.of(ReadOptions.of(typed))
                    : Outcome.failed(
                            Problem.about(
                                    Code.NO_SUCH,
                                    typed,
                                    "Nothing is read from addresses that begin with "
                                            + typed.replaceFirst("(?s)://.*", "") + ".",
                                    "Those of servers begin with postgresql://, mariadb:// or jdbc:, those of pages with https://."));
        }
        Path file = Sources.file(shelf, Path.of(typed));
        return Sources.shape(file, Sources.path(shelf, file), shelf.settings().nullWords());
    }

    /// After the table where one is named, else after the last part of the place.
    private String named(String typed) {
        String place = typed.replaceFirst("[?#].*$", "")
                .replaceFirst("[/\\\\]+$", "")
                .replaceFirst("(?s).*[/\\\\]", "")
                .replaceFirst("\\.[^.]*$", "");
        String table = fields.getOrDefault("table", "");
        String name = ReadCommand.named(table.isBlank() || table.matches("[0-9]+") ? place : table);
        return name.matches("[0-9_]*") ? "table_" + name.replaceFirst("^_", "") : name;
    }
}
