using CalmQuill.Core.Papers.Designs;

namespace CalmQuill.Core.Papers;

/// <summary>The designs that are shipped, in the order in which they are offered.</summary>
public static class PaperDesigns
{
    public static readonly PaperDesign[] All = [.. Ruled.All, .. Grids.All, .. Music.All, .. Forms.All, .. Calendars.All];
    private static readonly Dictionary<string, PaperDesign> ByName = All.ToDictionary(design => design.Name);

    public static PaperDesign? Find(string name) => ByName.GetValueOrDefault(name);

    /// <summary>Papers that are offered ready made: a name, and the text form without size.</summary>
    /// <remarks>Ruling widths, Cornell columns, five-line staves, six-line tablature: common practice.</remarks>
    public static readonly (string Words, string Design)[] Ready =
    [
        ("Blank", "blank-710"),
        ("Ruled, 7.1 mm", "ruled-710"),
        ("Ruled narrow, 6.4 mm", "ruled-640"),
        ("Ruled wide, 8.7 mm", "ruled-870"),
        ("Legal pad", "legal-870"),
        ("Two columns", "columns-710-count.2"),
        ("Cornell", "cornell-710"),
        ("Checklist", "checklist-870"),
        ("Squared, 5 mm", "squared-500"),
        ("Squared, 4 mm", "squared-400"),
        ("Squared, 7 mm", "squared-700"),
        ("Squared, 10 mm", "squared-1000"),
        ("Millimetre", "millimetre-100"),
        ("Dotted", "dotted-500"),
        ("Isometric", "isometric-700"),
        ("Music", "staves-180-count.10"),
        ("Piano", "staves-180-count.10-paired"),
        ("Guitar tablature", "guitar-280-count.8"),
        ("Bass tablature", "bass-320-count.8"),
        ("Meeting notes", "meeting-710"),
        ("Lab page", "lab-500"),
        ("Five questions and how", "questions-710"),
        ("Flow of steps", "flow-710-count.5"),
        ("Storyboard", "storyboard-640-count.6"),
        ("Habits and progress", "habits-640-count.12"),
        ("Repair sheet", "repair-710"),
        ("Day", "day-710"),
        ("Week, by hours", "week-710"),
        ("Week, in boxes", "weekboxes-710"),
        ("Month", "month-710"),
        ("Term plan", "term-710-count.16"),
        ("Year", "year-710"),
    ];
}
