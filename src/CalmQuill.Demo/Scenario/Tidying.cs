using CalmQuill.Core.Lenses;

namespace CalmQuill.Demo.Scenario;

/// <summary>How the group keeps its library in order: tags, sections, lenses, what is pinned, and what lies in the bin.</summary>
public static class Tidying
{
    /// <param name="Title">The section's title.</param>
    /// <param name="Colour">Its colour.</param>
    /// <param name="First">The first of its pages, counted from 0.</param>
    /// <param name="Count">How many pages it has.</param>
    public sealed record Section(string Title, string Colour, int First, int Count);

    /// <summary>Tags of the group by their paths, with colours.</summary>
    public static readonly (string Path, string Colour)[] Tags =
    [
        ("exam", "plum"),
        ("exam/level 2", "plum"),
        ("drawings", "sky"),
        ("workshop", "lichen"),
        ("workshop/tools", "lichen"),
        ("history", "gold"),
        ("repairs", "madder"),
    ];

    /// <summary>The tags on notebooks.</summary>
    public static readonly Dictionary<string, string[]> OnNotebooks = new()
    {
        ["Anchor and deadbeat"] = ["exam/level 2", "drawings"],
        ["Going train"] = ["exam/level 2"],
        ["The pendulum"] = ["exam"],
        ["Bench log, autumn"] = ["repairs"],
        ["Certificate preparation"] = ["exam/level 2"],
        ["Oils and cleaning"] = ["workshop"],
        ["Verge and cylinder"] = ["history", "drawings"],
    };

    /// <summary>The tags on single pages, by their titles.</summary>
    public static readonly Dictionary<string, string[]> OnPages = new()
    {
        ["Depth and drop"] = ["workshop/tools"],
        ["Second evening"] = ["workshop/tools"],
        ["Fourth evening"] = ["drawings"],
        ["What we heard"] = ["repairs"],
    };

    /// <summary>The sections of notebooks; pages in none stand after them.</summary>
    public static readonly Dictionary<string, Section[]> Sections = new()
    {
        ["Anchor and deadbeat"] = [new("Basics", "spruce", 0, 3), new("Setting out", "sky", 3, 3), new("Faults", "madder", 6, 2)],
        ["The pendulum"] = [new("Theory", "sky", 0, 3), new("In practice", "lichen", 3, 4)],
        ["Certificate preparation"] = [new("Questions", "plum", 0, 2), new("Skills", "gold", 2, 3)],
    };

    /// <summary>Notebooks that stand at the top of their folder.</summary>
    public static readonly string[] Pinned = ["Class notebook"];

    /// <summary>Notebooks in the bin.</summary>
    public static readonly string[] Binned = ["First tries"];

    /// <summary>Lenses of the group: name, icon, and rule by the tags' ids.</summary>
    public static IEnumerable<(string Name, string Icon, Rule Rule)> Lenses(Func<string, Guid> tag) =>
        [
            ("Exam, this term", "cap", new Rule.All([new Rule.Tagged(tag("exam")), new Rule.Written(new Span("this-term"))])),
            (
                "Drawings, not for the exam",
                "compass",
                new Rule.All([new Rule.Tagged(tag("drawings")), new Rule.Not(new Rule.Tagged(tag("exam")))])
            ),
        ];
}
