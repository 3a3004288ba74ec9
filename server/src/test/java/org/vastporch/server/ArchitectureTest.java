package org.vastporch.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The house: the core knows no one, features reach each other through services, and there are no circles. */
@AnalyzeClasses(packages = "org.vastporch", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    @ArchTest
    static final ArchRule CORE_IS_PURE = noClasses()
            .that()
            .resideInAPackage("org.vastporch.core..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "org.springframework..",
                    "java.sql..",
                    "javax.sql..",
                    "jakarta..",
                    "java.net.http..",
                    "java.nio.file..",
                    "org.vastporch.server..");

    @ArchTest
    static final ArchRule NO_CIRCLES =
            slices().matching("org.vastporch.server.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule STORES_STAY_AT_HOME = classes()
            .that()
            .haveSimpleNameEndingWith("Store")
            .and()
            .resideOutsideOfPackage("..log..")
            .should()
            .bePackagePrivate();
}
