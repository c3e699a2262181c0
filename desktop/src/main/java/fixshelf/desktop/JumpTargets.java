package fixshelf.desktop;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.JumpField.Target;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.TableFixPage;
import java.util.ArrayList;
import java.util.List;

/// Where the jump field leads: pages of the shelf that is open, columns of the job in view, and commands.
final class JumpTargets {
    private JumpTargets() {}

    static List<Target> of(Frame frame, List<Command> commands) {
        List<Target> targets = new ArrayList<>();
        frame.workbench().ifPresent(w -> addPages(frame, w, targets));
        commands.stream()
                .filter(c -> c.enabled().getAsBoolean())
                .forEach(c -> targets.add(
                        new Target(c.keys() == null ? "command" : c.keys().getDisplayText(), c.text(), c::tryRun)));
        return targets;
    }

    private static void addPages(Frame frame, Workbench workbench, List<Target> targets) {
        for (FixPage fix : workbench.shelf().fixes()) {
            targets.add(new Target("fix", fix.name(), () -> frame.showFix(fix.name())));
        }
        for (TableFixPage fix : workbench.shelf().tableFixes()) {
            targets.add(new Target("table fix", fix.name(), () -> frame.showFix(fix.name())));
        }
        for (JobPage job : workbench.shelf().jobs()) {
            targets.add(new Target("job " + job.name(), job.title(), () -> frame.showJob(job.file())));
        }
        for (DatasetPage dataset : workbench.shelf().datasets()) {
            targets.add(new Target("dataset", dataset.name(), () -> {
                frame.enter(frame.dataPlace());
                frame.dataPlace().show(dataset.name());
            }));
        }
        for (String column : frame.jobsPlace().columns()) {
            targets.add(new Target("column", column, () -> {
                frame.enter(frame.jobsPlace());
                frame.jobsPlace().showColumn(column);
            }));
        }
    }
}
