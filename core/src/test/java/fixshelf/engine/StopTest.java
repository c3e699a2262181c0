package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import fixshelf.problem.Code;
import fixshelf.problem.ProblemException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/// Work in another thread ends at once, says why, and leaves what it worked with usable.
class StopTest {
    private static final String ENDLESS = "SELECT count(*) FROM range(1000000000000) a WHERE hash(a.range) % 7 = 8";

    @Test
    void aStatementIsEndedFromAnotherThread() throws Exception {
        Stop stop = new Stop();
        try (DuckSession session = DuckSession.open()) {
            CountDownLatch began = new CountDownLatch(1);
            Thread.ofVirtual().start(() -> {
                try {
                    began.await(10, TimeUnit.SECONDS);
                    Thread.sleep(200);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                stop.now();
            });
            ProblemException stopped = catchThrowableOfType(
                    ProblemException.class,
                    () -> stop.during(() -> {
                        began.countDown();
                        return session.number(ENDLESS);
                    }));
            assertThat(stopped.problem().code()).isEqualTo(Code.CANCELLED);
            assertThat(new Stop().during(() -> session.number("SELECT 7"))).isEqualTo(7);
        }
    }

    @Test
    void nothingBeginsAfterAStop() {
        Stop stop = new Stop();
        stop.now();
        try (DuckSession session = DuckSession.open()) {
            ProblemException stopped =
                    catchThrowableOfType(ProblemException.class, () -> stop.during(() -> session.number("SELECT 7")));
            assertThat(stopped.problem().code()).isEqualTo(Code.CANCELLED);
        }
    }
}
