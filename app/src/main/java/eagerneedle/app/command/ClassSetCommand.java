package eagerneedle.app.command;

import eagerneedle.app.classroom.ClassSet;
import eagerneedle.store.FileName;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.ClassList;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "classset",
        description = "Data of their own for every student or group of a list, with a form to hand in; what is true of "
                + "them lies beside, sealed.")
final class ClassSetCommand implements Callable<Integer> {
    @Parameters(
            paramLabel = "METHOD",
            description = "a shipped method or a sheet, for data from its rig; a bench file, whose runs are shared out")
    private Path method;

    @Option(
            names = "--students",
            required = true,
            paramLabel = "LIST.csv",
            description = "one id a line, or a header with id, name and group")
    private Path students;

    @Option(names = "-o", required = true, paramLabel = "DIR", description = "must not be there, or be empty")
    private Path folder;

    @Option(
            names = "--passphrase-file",
            required = true,
            paramLabel = "F",
            description = "seals the key: the first line of a file, eight characters or more")
    private Path passphrase;

    @Option(names = "--with-faults", paramLabel = "N", description = "so many sets have a mistake made at their bench")
    private int withFaults;

    @Option(names = "--again", paramLabel = "KEY", description = "the same sets as an earlier class.key gave")
    private Path again;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        char[] words = ClassKey.passphrase(passphrase);
        ClassList list = ClassList.read(students);
        ClassKey earlier = again == null ? null : ClassKey.read(again, words);
        ClassSet set = FileName.of(method).endsWith(".needle")
                ? ClassSet.fromSession(method, list, earlier)
                : ClassSet.fromRig(
                        Sessions.named(method), list, earlier, Clock.systemUTC().instant());
        ClassFolder made = set.make(folder, words, withFaults, (n, of) -> true);
        int sets = list.units().size();
        spec.commandLine()
                .getOut()
                .println(sets + (sets == 1 ? " data set" : " data sets") + " of " + made.method() + " for "
                        + list.students().size() + (list.students().size() == 1 ? " student" : " students") + " in "
                        + FileName.of(folder) + "/" + ClassFolder.GIVEN + "; the sealed key is " + FileName.of(folder)
                        + "/" + ClassFolder.KEY + ".");
        return NeedleCommand.GOOD;
    }
}
