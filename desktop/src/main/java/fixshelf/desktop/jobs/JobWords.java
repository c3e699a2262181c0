package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.JobPage;
import fixshelf.work.JobRun;
import fixshelf.work.RunLog;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A job and its run, in words.
final class JobWords {
    private JobWords() {}

    /// What is read, how much of it, and when the job last ran.
    ///
    /// @param total all rows of the source; below 0 while they are counted
    static String about(Workbench workbench, JobPage job, Optional<JobModel.Look> look, long total) {
        List<String> parts = new ArrayList<>();
        look.ifPresent(l -> {
            if (l.planned().source().copied().isEmpty()) {
                parts.add("on "
                        + (!l.planned().plan().readsRows()
                                ? l.planned().source().file().getFileName() + ", by "
                                : "")
                        + l.planned().readFrom());
            }
            parts.add(total >= 0 ? Ui.count(total, "row", "rows") : "counting the rows …");
            parts.add(Ui.count(l.planned().source().columns().size(), "column", "columns"));
        });
        RunLog.lastRun(workbench.shelf().root(), job.name()).ifPresent(at -> {
            LocalDate day = at.atZone(ZoneId.systemDefault()).toLocalDate();
            long ago = LocalDate.now(ZoneId.systemDefault()).toEpochDay() - day.toEpochDay();
            parts.add("last run " + (ago == 0 ? "today" : ago == 1 ? "yesterday" : day.toString()));
        });
        if (workbench.isDraft(job.file())) {
            parts.add("not kept yet");
        }
        String notes = look.map(l -> String.join(" ", l.notes())).orElse("");
        return (job.about().isEmpty() ? "" : job.about() + "\n")
                + String.join(" · ", parts)
                + (notes.isEmpty() ? "" : "\n" + notes);
    }

    /// What came of a run.
    static String report(Workbench workbench, JobRun.Report report) {
        List<String> written = new ArrayList<>(report.files().stream()
                .map(f -> workbench.shelf().root().relativize(f).toString())
                .toList());
        written.addAll(report.tables());
        String files = written.isEmpty() ? "No output is named, so nothing was written" : "Wrote " + Ui.joined(written);
        String left = report.careful()
                .filter(c -> c.badCount() > 0)
                .map(c -> ", " + Ui.count(c.badCount(), "row", "rows") + " left out")
                .orElse("");
        return files + " · " + Ui.count(report.rows(), "row", "rows") + left + " · "
                + String.format("%.1f s", report.millis() / 1000.0)
                + (report.notes().isEmpty() ? "" : " · " + String.join(" ", report.notes()));
    }
}
