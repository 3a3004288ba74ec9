package org.vastporch.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import org.springframework.jdbc.core.simple.JdbcClient;

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
    static final ArchRule NO_CIRCLES_IN_THE_CORE =
            slices().matching("org.vastporch.core.(*)..").should().beFreeOfCycles();

    /** Statements stand in stores, and where a feature removes its own traces; the disk is waited for beside them. */
    @ArchTest
    static final ArchRule STATEMENTS_STAND_IN_STORES = noClasses()
            .that()
            .haveSimpleNameNotEndingWith("Store")
            .and()
            .haveSimpleNameNotEndingWith("Traces")
            .and()
            .doNotHaveSimpleName("Durability")
            .and()
            .resideInAPackage("org.vastporch.server..")
            .should()
            .dependOnClassesThat()
            .areAssignableTo(JdbcClient.class);

    @ArchTest
    static final ArchRule APIS_ASK_SERVICES = noClasses()
            .that()
            .haveSimpleNameEndingWith("Api")
            .should()
            .dependOnClassesThat()
            .haveSimpleNameEndingWith("Store");

    @ArchTest
    static final ArchRule STORES_STAY_AT_HOME = classes()
            .that()
            .haveSimpleNameEndingWith("Store")
            .and()
            .resideOutsideOfPackage("..log..")
            .should()
            .bePackagePrivate();
}
