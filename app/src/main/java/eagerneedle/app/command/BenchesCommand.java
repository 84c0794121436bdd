package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.benches.BenchesModel;
import eagerneedle.app.benches.Together;
import eagerneedle.core.benches.Benches;
import eagerneedle.core.benches.Cause;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.BenchesPicture;
import eagerneedle.picture.SvgSurface;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "benches",
        description = "Holds all benches of one method together: mean, scatter, the odd one and by what it differs.")
final class BenchesCommand implements Callable<Integer> {
    private static final double WIDTH = 720;

    @Parameters(paramLabel = "FOLDER", description = "the folder into which the benches publish")
    private Path folder;

    @Option(names = "--result", paramLabel = "NAME", description = "a result of the method; may be given several times")
    private List<String> results = List.of();

    @Option(names = "--leave-out", paramLabel = "BENCH", description = "a bench that is not to count")
    private List<String> leftOut = List.of();

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Option(names = "--picture", paramLabel = "OUT.svg", description = "write the picture of the first result")
    private Path picture;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        try (BenchesModel model = new BenchesModel()) {
            model.read(folder, (n, of) -> true);
            model.problems().forEach(spec.commandLine().getErr()::println);
            for (String bench : leftOut) {
                if (!model.names().contains(bench)) {
                    throw new IllegalArgumentException(
                            "There is no bench " + bench + NearName.hint(bench, model.names()));
                }
                model.count(bench, false);
            }
            List<Together> all = new ArrayList<>();
            for (String name : chosen(model)) {
                all.add(model.together(name));
            }
            if (picture != null) {
                written(all.get(0));
            }
            if (json) {
                out.println(json(model, all));
                return NeedleCommand.GOOD;
            }
            out.println(model.title() + ": " + model.names().size() + " benches.");
            for (Together t : all) {
                out.println(t.label() + " (" + t.result() + ")");
                t.says().forEach(s -> out.println("  " + s));
            }
            return NeedleCommand.GOOD;
        }
    }

    private List<String> chosen(BenchesModel model) {
        List<String> known =
                model.results().stream().map(BenchesModel.Result::name).toList();
        for (String r : results) {
            if (!known.contains(r)) {
                throw new IllegalArgumentException("The benches have no result " + r + NearName.hint(r, known));
            }
        }
        return results.isEmpty() ? known : results;
    }

    private void written(Together t) throws IOException {
        SvgSurface s =
                new SvgSurface(WIDTH, BenchesPicture.height(t.all().rows().size()), false, "b");
        Benches rest = t.rest();
        BenchesPicture.paint(s, t.all(), rest == null ? t.all() : rest, t.label(), WIDTH, null);
        Beside.write(picture, part -> Files.writeString(part, s.document(t.label())));
        spec.commandLine().getOut().println("Wrote " + FileName.of(picture) + ".");
    }

    private static String json(BenchesModel model, List<Together> all) {
        ObjectNode root = new ObjectMapper().createObjectNode().put("method", model.title());
        ArrayNode results = root.putArray("results");
        for (Together t : all) {
            ObjectNode one = results.addObject().put("result", t.result()).put("label", t.label());
            one.put("unit", t.all().mean().unit().symbol());
            held(one, t.all());
            ArrayNode rows = one.putArray("benches");
            t.all().rows().forEach(r -> quantity(rows.addObject().put("name", r.name()), r.value()));
            ArrayNode apart = one.putArray("apart");
            t.all().apart().forEach(a -> {
                ObjectNode odd = apart.addObject().put("name", a.name()).put("by", a.by());
                ArrayNode causes = odd.putArray("differs_by");
                t.causes().getOrDefault(a.name(), List.of()).forEach(c -> cause(causes.addObject(), c));
            });
            Benches rest = t.rest();
            if (rest != null) {
                held(one.putObject("others"), rest);
            }
            ArrayNode says = one.putArray("says");
            t.says().forEach(says::add);
        }
        return root.toPrettyString();
    }

    private static void held(ObjectNode to, Benches b) {
        quantity(to.putObject("mean"), b.mean());
        to.put("between", b.between());
        to.put("chi_square", b.chi2()).put("degrees_of_freedom", b.rows().size() - 1);
        to.put("probability", b.probability());
    }

    private static void quantity(ObjectNode to, Quantity q) {
        to.put("value", q.value()).put("u", q.u());
    }

    private static void cause(ObjectNode to, Cause c) {
        to.put("input", c.label()).put("own", c.own().value()).put("others", c.others());
        to.put("unit", c.own().unit().symbol());
        quantity(to.putObject("with_theirs"), c.result());
        to.put("share", c.share());
    }
}
