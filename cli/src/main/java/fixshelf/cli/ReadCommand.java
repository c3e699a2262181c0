package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.fetch.Consent;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.source.FileParts;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import fixshelf.work.Preview;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "read",
        mixinStandardHelpOptions = true,
        description =
                "Look at a file, or a table elsewhere: how it is formed, its columns and first rows, and a dataset page for it.")
final class ReadCommand extends ShelfOption {
    @Parameters(
            paramLabel = "FILE",
            description = "The file: delimited text, a workbook, JSON, Parquet, a PDF, a saved web page, a database."
                    + " Or the address of a database server or of a page of the web.")
    String file = "";

    @Mixin
    ReadParts part = new ReadParts();

    @Option(names = "--rows", paramLabel = "N", defaultValue = "5", description = "How many rows to print.")
    int rows = 5;

    @Option(names = "--keep", paramLabel = "NAME", description = "Keep the dataset page under this name on the shelf.")
    String keep = "";

    @Option(
            names = "--parts",
            description =
                    "List the tables that it holds: on the pages of a PDF, on a page of the web, in a workbook, in a database.")
    boolean parts;

    @Override
    public Integer call() {
        wantCount("--rows", rows);
        return onShelf(this::read);
    }

    private int read(Shelf shelf) {
        if (part.isWanted(file)) {
            return readPart(shelf);
        }
        Path whole = Sources.file(shelf, Path.of(file));
        if (parts) {
            return parts(shelf, whole);
        }
        Outcome<SourceFile> opened = Sources.detected(
                whole, Sources.path(shelf, whole), shelf.settings().nullWords());
        Outcome<Preview> preview = opened.then(f -> Preview.open(f, Math.max(rows, 1), Math.max(rows, 1)));
        if (!preview.isPresent()) {
            return Output.problems(out(), err(), preview.problems(), json);
        }
        SourceFile source = opened.get();
        String name =
                keep.isBlank() ? named(source.file().getFileName().toString().replaceFirst("\\.[^.]*$", "")) : keep;
        String page = source.isTyped()
                ? DatasetPages.writeDeclared(name, source.options())
                : DatasetPages.write(name, source.options());
        try (Preview looked = preview.get()) {
            return print(shelf, source, looked, new Page(name, page, Consent.Place.of(shelf.root(), source.file())));
        }
    }

    /// A table that is not the file itself.
    private int readPart(Shelf shelf) {
        Outcome<ReadParts.Read> read = part.of(shelf, file, keep);
        if (parts && ReadOptions.isAddress(file) && read.isPresent()) {
            return print(read.get().parts(), read.get().page().name());
        }
        Outcome<SourceFile> opened = read.then(ReadParts.Read::open);
        Outcome<Preview> preview = opened.then(f -> Preview.open(f, Math.max(rows, 1), Math.max(rows, 1)));
        if (!preview.isPresent()) {
            return Output.problems(out(), err(), preview.problems(), json);
        }
        try (Preview looked = preview.get()) {
            DatasetPage page = read.get().page();
            return print(
                    shelf,
                    opened.get(),
                    looked,
                    new Page(page.name(), page.source().text(), read.get().place()));
        }
    }

    /// A name for a dataset, out of that of a file or a table.
    static String named(String text) {
        return text.toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{Nd}]+", "_")
                .replaceFirst("^_(?=.)", "")
                .replaceFirst("^([0-9])", "_$1");
    }

    /// A page that reads what was looked at.
    ///
    /// @param place outside of the shelf, which who keeps the page allows by that
    private record Page(String name, String text, Optional<Consent.Place> place) {}

    private int parts(Shelf shelf, Path whole) {
        Outcome<List<FileParts.Part>> found = Sources.shape(
                        whole, Sources.path(shelf, whole), shelf.settings().nullWords())
                .then(o -> FileParts.of(whole, o));
        return print(found, whole.getFileName().toString().replaceFirst("\\.[^.]*$", ""));
    }

    private int print(Outcome<List<FileParts.Part>> found, String name) {
        if (!found.isPresent()) {
            return Output.problems(out(), err(), found.problems(), json);
        }
        if (json) {
            ObjectNode node = Output.object();
            ArrayNode array = node.putArray("parts");
            found.get().forEach(p -> {
                ObjectNode one = array.addObject().put("title", p.title()).put("size", p.size());
                p.names().forEach(one.putArray("columns")::add);
                one.put("page", page(name, p));
            });
            Output.json(out(), node);
            return Output.FINE;
        }
        if (found.get().isEmpty()) {
            out().println("It is one table: read it without --parts.");
        }
        for (FileParts.Part part : found.get()) {
            out().println(part.title() + ": " + part.size());
            List<List<String>> table = new ArrayList<>(List.of(part.names()));
            part.first().stream()
                    .limit(rows)
                    .forEach(r ->
                            table.add(r.stream().map(c -> c == null ? "" : c).toList()));
            if (part.isReadable()) {
                Output.table(out(), table);
                out().println(page(name, part));
            }
        }
        return Output.FINE;
    }

    /// A page that reads the part, with the types that it declares.
    private static String page(String name, FileParts.Part part) {
        return part.options().mayDeclare()
                ? DatasetPages.writeDeclared(name, part.options())
                : DatasetPages.write(name, part.options());
    }

    private int print(Shelf shelf, SourceFile source, Preview preview, Page page) {
        List<Problem> bad = preview.careful().stream()
                .filter(c -> c.badCount() > 0)
                .map(c -> c.problem(source))
                .toList();
        if (json) {
            var node = Output.object()
                    .put("file", source.file().toString())
                    .put("separator", source.options().separator())
                    .put("encoding", source.options().encoding())
                    .put("heading", source.options().heading())
                    .put(
                            "kind",
                            source.options().form().map(ReadOptions.Form::word).orElse("delimited"))
                    .put("page", page.text());
            preview.notes().forEach(node.putArray("notes")::add);
            source.columns().forEach(c -> node.withArray("columns").add(c.name()));
            source.declared().forEach(t -> node.withArray("declared").add(t.label()));
            Output.problems(node, bad);
            Output.json(out(), node);
        } else {
            out().println(page.text());
            out().println(source.columns().size() + (source.columns().size() == 1 ? " column" : " columns")
                    + ", the first rows:");
            List<List<String>> table = new ArrayList<>();
            table.add(source.columns().stream()
                    .map(Column::name)
                    .map(Output::cell)
                    .toList());
            if (source.isTyped()) {
                table.add(source.declared().stream()
                        .map(t -> "(" + t.label() + ")")
                        .toList());
            }
            table.addAll(preview.firstRows(rows));
            Output.table(out(), table);
            preview.notes().forEach(out()::println);
            Output.problems(out(), err(), bad, false);
        }
        if (!keep.isBlank()) {
            Path to = shelf.root().resolve("datasets/" + page.name() + ".yaml");
            Outcome<Path> kept = DatasetPages.objection(page.name(), to)
                    .<Outcome<Path>>map(Outcome::failed)
                    .orElseGet(() -> PageFiles.write(to, page.text()));
            if (!kept.isPresent()) {
                return Output.problems(out(), err(), kept.problems(), false);
            }
            try {
                if (page.place().isPresent()) {
                    Consent.keep(shelf.root(), page.place().get());
                    out().println("This shelf may read from "
                            + page.place().get().name() + " from now on.");
                }
            } catch (IOException e) {
                err().println("It cannot be remembered that this shelf may read there: " + e.getMessage() + ".");
            }
            out().println("Kept as " + shelf.root().relativize(to) + ".");
        }
        return bad.isEmpty() ? Output.FINE : Output.PROBLEMS;
    }
}
