package fixshelf.problem;

/// Carries a problem through code that cannot return one, such as the callbacks of a library or a database call
/// deep in a run. It is caught at the door of the package and becomes an [Outcome] again.
public final class ProblemException extends RuntimeException {
    private final transient Problem problem;

    public ProblemException(Problem problem) {
        super(problem.sentence());
        this.problem = problem;
    }

    public Problem problem() {
        return problem;
    }
}
