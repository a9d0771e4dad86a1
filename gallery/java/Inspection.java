// Grown by Jar Sprout: 9cc08a20
package models;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.LocalDate;

@JsonInclude(JsonInclude.Include.NON_NULL)
public record Inspection(
    String id,
    @JsonLocalDate LocalDate date,
    String inspector,
    @JsonProperty("frames_of_brood") int framesOfBrood,
    @JsonProperty("mites_per_100") int mitesPer100,
    String temper,
    String remarks) {}
