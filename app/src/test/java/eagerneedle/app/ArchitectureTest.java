package eagerneedle.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.NullMarked;

/** Who may know whom. */
@AnalyzeClasses(packages = "eagerneedle", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
    @ArchTest
    static final ArchRule MODULES = layeredArchitecture()
            .consideringOnlyDependenciesInLayers()
            .layer("core")
            .definedBy("eagerneedle.core..")
            .layer("rig")
            .definedBy("eagerneedle.rig..")
            .layer("store")
            .definedBy("eagerneedle.store..")
            .layer("picture")
            .definedBy("eagerneedle.picture..")
            .layer("report")
            .definedBy("eagerneedle.report..")
            .layer("app")
            .definedBy("eagerneedle.app..")
            .whereLayer("app")
            .mayNotBeAccessedByAnyLayer()
            .whereLayer("report")
            .mayOnlyBeAccessedByLayers("app")
            .whereLayer("store")
            .mayOnlyBeAccessedByLayers("report", "app")
            .whereLayer("rig")
            .mayOnlyBeAccessedByLayers("app")
            .whereLayer("picture")
            .mayOnlyBeAccessedByLayers("report", "app")
            .whereLayer("core")
            .mayOnlyBeAccessedByLayers("rig", "store", "picture", "report", "app");

    private static final String[] VIEWS = {
        "plan",
        "rig",
        "calibrate",
        "capture",
        "reduce",
        "judge",
        "record",
        "stockroom",
        "marking",
        "benches",
        "day",
        "ready",
        "settings",
        "training",
        "writing"
    };

    /** From the bottom to the top; no room imports one above it, and no station another. */
    @ArchTest
    static void roomsOfTheApplicationStandOnEachOther(JavaClasses classes) {
        String[] below = {"classroom", "workbench", "widget", "plot", "station", "eye"};
        for (int i = 0; i < below.length; i++) {
            List<String> above = new ArrayList<>(List.of("find", "window", "command"));
            above.addAll(List.of(VIEWS));
            above.addAll(List.of(below).subList(i + 1, below.length));
            noneImports(below[i], above).check(classes);
        }
        for (String view : VIEWS) {
            List<String> others = new ArrayList<>(List.of("find", "window", "command"));
            others.addAll(List.of(VIEWS));
            others.remove(view);
            noneImports(view, others).check(classes);
        }
        noneImports("window", List.of("command")).check(classes);
    }

    private static ArchRule noneImports(String room, List<String> others) {
        return noClasses()
                .that()
                .resideInAPackage("eagerneedle.app." + room + "..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        others.stream().map(o -> "eagerneedle.app." + o + "..").toArray(String[]::new));
    }

    @ArchTest
    static final ArchRule ROOMS_OF_THE_APPLICATION_HAVE_NO_CIRCLE =
            slices().matching("eagerneedle.app.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule CORE_HAS_NO_INTERFACE_FILES_SOCKETS_OR_CLOCK = noClasses()
            .that()
            .resideInAPackage("eagerneedle.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "javafx..", "java.awt..", "java.nio.file..", "java.net..", "java.sql..", "java.time.chrono..");

    /** Methods are text; what they are about has no class. */
    @ArchTest
    static final ArchRule NO_CLASS_IS_NAMED_AFTER_AN_EXPERIMENT = noClasses()
            .that()
            .resideInAPackage("eagerneedle..")
            .should()
            .haveNameMatching("(?i).*\\.[^.]*(cart|chute|wheel|reed|dye|cuvette|cabinet|pendulum|wagon|diode|governor"
                    + "|casting)[^.]*");

    @ArchTest
    static final ArchRule CORE_ASKS_NO_CLOCK = noClasses()
            .that()
            .resideInAPackage("eagerneedle.core..")
            .should()
            .callMethod(java.time.Instant.class, "now")
            .orShould()
            .callMethod(System.class, "currentTimeMillis")
            .orShould()
            .callMethod(System.class, "nanoTime")
            .orShould()
            .callMethod(Math.class, "random");

    @ArchTest
    static final ArchRule PACKAGES_OF_CORE_HAVE_NO_CIRCLE =
            slices().matching("eagerneedle.core.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule ONLY_THE_WINDOW_KNOWS_JAVAFX = noClasses()
            .that()
            .resideOutsideOfPackage("eagerneedle.app..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx..");

    @ArchTest
    static final ArchRule WHAT_THE_WINDOW_SHOWS_IS_TESTED_WITHOUT_ONE = noClasses()
            .that()
            .resideInAPackage("eagerneedle.app.workbench..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx..");

    @ArchTest
    static final ArchRule MODELS_OF_VIEWS_KNOW_NO_WIDGET = noClasses()
            .that()
            .resideInAPackage("eagerneedle.app..")
            .and()
            .haveSimpleNameEndingWith("Model")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx..");

    @ArchTest
    static final ArchRule THE_LANGUAGE_KNOWS_NO_FUNCTION = noClasses()
            .that()
            .resideInAPackage("eagerneedle.core.formula..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("eagerneedle.core.function..");

    @ArchTest
    static final ArchRule NO_CLASS_IS_AN_EXPERIMENT = noClasses()
            .that()
            .resideOutsideOfPackage("eagerneedle.rig.simulated..")
            .should()
            .haveSimpleNameContaining("Chute")
            .orShould()
            .haveSimpleNameContaining("Cart")
            .orShould()
            .haveSimpleNameContaining("Slope");

    @ArchTest
    static final ArchRule NO_ROOM_FOR_ODDS_AND_ENDS = noClasses()
            .should()
            .haveSimpleNameEndingWith("Manager")
            .orShould()
            .haveSimpleNameEndingWith("Helper")
            .orShould()
            .haveSimpleNameEndingWith("Util")
            .orShould()
            .haveSimpleNameEndingWith("Utils");

    /** One name for one thing: who reads it in any room knows which class is meant. */
    @ArchTest
    static void noTwoClassesHaveOneName(JavaClasses classes) {
        Map<String, List<String>> byName = classes.stream()
                .filter(c -> c.isTopLevelClass() && !c.getSimpleName().equals("package-info"))
                .collect(Collectors.groupingBy(
                        JavaClass::getSimpleName,
                        TreeMap::new,
                        Collectors.mapping(JavaClass::getPackageName, Collectors.toList())));
        assertThat(byName).hasSizeGreaterThan(500);
        byName.values().removeIf(rooms -> rooms.size() == 1);
        assertThat(byName).isEmpty();
    }

    /** Nothing is null that does not say so: NullAway checks every room that is marked. */
    @ArchTest
    static void everyRoomIsNullMarked(JavaClasses classes) {
        List<String> unmarked = classes.stream()
                .filter(c -> c.getPackageName().startsWith("eagerneedle."))
                .filter(c -> !c.getPackage().isAnnotatedWith(NullMarked.class))
                .map(c -> c.getPackageName().substring("eagerneedle.".length()))
                .distinct()
                .sorted()
                .toList();
        assertThat(unmarked).isEmpty();
    }
}
