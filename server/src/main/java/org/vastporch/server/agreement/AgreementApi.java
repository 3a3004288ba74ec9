package org.vastporch.server.agreement;

import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Csv;

@RestController
class AgreementApi {

    private final AgreementService agreement;

    AgreementApi(AgreementService agreement) {
        this.agreement = agreement;
    }

    @GetMapping("/api/classes/{id}/agreement")
    AgreementService.AgreementView compare(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "lead") String first,
            @RequestParam(defaultValue = "second") String second,
            @RequestParam(required = false) @Nullable Long prompt) {
        return agreement.compare(viewer, id, first, second, prompt);
    }

    @GetMapping("/api/classes/{id}/agreement.csv")
    ResponseEntity<byte[]> csv(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "lead") String first,
            @RequestParam(defaultValue = "second") String second,
            @RequestParam(required = false) @Nullable Long prompt) {
        return Csv.file(agreement.csv(viewer, id, first, second, prompt), "agreement.csv");
    }
}
