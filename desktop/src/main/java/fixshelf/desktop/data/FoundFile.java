package fixshelf.desktop.data;

import fixshelf.desktop.parts.Place;
import fixshelf.desktop.workbench.Leave;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobEdits;
import fixshelf.source.DelimitedShape;
import fixshelf.source.FileParts;
import fixshelf.source.FixedPlaces;
import fixshelf.source.SourceFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// A file that a user brings in: what form it has, a job that begins with it, a dataset that names it.
public final class FoundFile {
    private final Workbench workbench;
    private final Path data;
    /// Whether it says types of its columns; known once its form is.
    private boolean isTyped;

    public FoundFile(Workbench workbench, Path data) {
        this.workbench = workbench;
        this.data = data.toAbsolutePath().normalize();
    }

    /// What form the file has; it is read for that, so this is asked away from the interface.
    public Outcome<ReadOptions> shape() {
        Path root = workbench.shelf().root();
        String path = (data.startsWith(root) ? root.relativize(data) : data)
                .toString()
                .replace('\\', '/');
        try {
            if (!Files.isRegularFile(data) || Files.size(data) == 0) {
                return Outcome.failed(Problem.about(
                        Code.FILE_EMPTY, path, data.getFileName() + " is empty or no file.", "Choose another."));
            }
            ReadOptions shape = DelimitedShape.detect(
                    data, path, workbench.shelf().settings().nullWords());
            isTyped = declares(shape);
            return Outcome.of(shape);
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING, path, "It cannot be read: " + e.getMessage() + ".", "Look at its rights."));
        }
    }

    /// Away from the interface, too, as the file is opened.
    private boolean declares(ReadOptions shape) {
        return shape.mayDeclare()
                && SourceFile.open(data, shape)
                        .value()
                        .filter(SourceFile::isTyped)
                        .isPresent();
    }

    /// Writes the page of the job, as a draft, and gives its file. Types that the file declares are a line of it.
    public Path begin(ReadOptions shape) {
        String name = name();
        Path page = workbench.freeFile("jobs", name.isBlank() ? "job" : name, ".yaml");
        String job = page.getFileName().toString().replace(".yaml", "");
        String title = JobEdits.titleOf(job);
        // Who brings in a file allows its folder by that.
        Path root = workbench.shelf().root();
        Consent.Place.of(root, data).ifPresent(p -> Leave.give(() -> Consent.keep(root, p)));
        List<Line> lines = new ArrayList<>(List.of(JobEdits.reading(shape)));
        if (isTyped) {
            lines.add(Line.of("read_declared", "columns", Written.word("every text column")));
        }
        workbench.edit(page, JobEdits.newPage(job, title, lines));
        return page;
    }

    /// Whether its user chooses which table of the file it is, or where its columns begin.
    static boolean canBeCutOtherwise(ReadOptions shape) {
        return FileParts.hasSeveral(shape)
                || shape.form()
                        .filter(ReadOptions.Form.Places.class::isInstance)
                        .isPresent();
    }

    /// The tables that the file holds, where it may hold several; nothing where it is one.
    Outcome<List<FileParts.Part>> parts(ReadOptions shape) {
        return FileParts.hasSeveral(shape) ? FileParts.of(data, shape) : Outcome.of(List.of());
    }

    /// The first lines of a file that is cut at places; nothing of any other.
    Outcome<List<String>> lines(ReadOptions shape) {
        if (shape.form().filter(ReadOptions.Form.Places.class::isInstance).isEmpty()) {
            return Outcome.of(List.of());
        }
        try {
            return Outcome.of(FixedPlaces.lines(data, shape));
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    data.toString(),
                    "It cannot be read: " + e.getMessage() + ".",
                    "Look at its rights."));
        }
    }

    /// Keeps the page of a dataset that reads one of several tables of the file, and gives its name.
    Outcome<String> keep(FileParts.Part part) {
        String which = part.title()
                .replaceFirst("^(sheet|table) ", "")
                .replaceFirst(", (all that is used, )?[A-Z]+[0-9]+:.*", "")
                .replaceFirst("^all pages together$", "");
        return keep(part.options(), which.isEmpty() ? name() : name() + "_" + named(which));
    }

    /// Keeps the page of a dataset that reads the file, and gives its name.
    Outcome<String> keep(ReadOptions shape) {
        return keep(shape, name());
    }

    private Outcome<String> keep(ReadOptions shape, String name) {
        return workbench.keepDataset(
                name.isBlank() || Character.isDigit(name.charAt(0)) ? "data_" + name : name, shape);
    }

    private String name() {
        return named(data.getFileName().toString().replaceFirst("\\.[^.]*$", ""));
    }

    private static String named(String text) {
        return text.replaceAll("[^\\p{L}\\p{Nd}]+", "_").toLowerCase(Locale.ROOT);
    }
}
