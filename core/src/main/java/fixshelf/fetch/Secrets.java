package fixshelf.fetch;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Passwords: from variables of the system, or from the user, who is asked once while the program runs. They are in no
/// page, in no log, and in no message.
public final class Secrets {
    private static final Pattern VARIABLE = Pattern.compile("the variable ([A-Za-z_][A-Za-z0-9_]*)");
    private static final Map<String, String> ANSWERED = new ConcurrentHashMap<>();
    private static volatile Function<String, Optional<String>> prompt = _ -> Optional.empty();

    private Secrets() {}

    /// How the user is asked for what no variable says; nobody is asked where this was never called.
    public static void askWith(Function<String, Optional<String>> question) {
        prompt = question;
    }

    /// What the user answered for a variable, for as long as the program runs.
    public static void answer(String variable, String secret) {
        ANSWERED.put(variable, secret);
    }

    /// The variable that a problem is about, whose password can be typed; empty for another problem.
    public static Optional<String> askedBy(Problem problem) {
        Matcher named = VARIABLE.matcher(problem.sentence());
        return problem.code() == Code.NO_PASSWORD && named.find() && System.getenv(named.group(1)) == null
                ? Optional.of(named.group(1))
                : Optional.empty();
    }

    /// What was answered does not let anybody in.
    static void forget(String variable) {
        ANSWERED.remove(variable);
    }

    /// The password that a variable holds, or that the user gives.
    static Optional<String> find(String variable) {
        String value = System.getenv(variable);
        if (value == null) {
            value = ANSWERED.get(variable);
        }
        if (value != null) {
            return Optional.of(value);
        }
        Optional<String> answered = prompt.apply(variable);
        answered.ifPresent(a -> ANSWERED.put(variable, a));
        return answered;
    }
}
