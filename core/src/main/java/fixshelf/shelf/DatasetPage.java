package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.nio.file.Path;
import java.util.List;

/// A name for a file and the way it is read.
public record DatasetPage(
        Path file, SourceText source, String name, String about, ReadOptions options, List<Problem> problems) {}
