using CalmQuill.Testing;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Tags, filters and lenses, on two devices and without a connection.</summary>
public sealed class LensTests : InterfaceTest
{
    [Fact]
    public void A_lens_made_of_tags_is_found_on_a_second_device_and_stays_up_to_date()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        NewNotebook(browser, "Bench log");
        browser.Go("/library");
        foreach (var (notebook, tags) in new[] { ("Escapements", new[] { "exam/level 2", "drawings" }), ("Bench log", ["drawings"]) })
        {
            browser.PressCss($"[data-name='{notebook}'] [data-testid=row-menu]");
            browser.Press("menu-tags");
            foreach (var tag in tags)
            {
                browser.Fill("[data-testid=tag-typed]", tag);
                browser.Type(Keys.Enter);
                browser.Until(() => browser.Text("carried-tags").Contains(tag, StringComparison.Ordinal), "the tag on it");
            }

            browser.Press("tags-done");
        }

        // Drawings, but none for the exam; the parent tag includes its child.
        browser.Press("filter");
        browser.PressCss("[data-testid=filter-tag][data-name=drawings]");
        browser.Until(() => browser.Text("found") == "2 found", "both");
        foreach (var _ in Enumerable.Range(0, 3))
            browser.PressCss("[data-testid=filter-tag][data-name=exam]");
        browser.Until(() => browser.Text("found") == "1 found", "one");
        browser.Press("save-lens");
        browser.Fill("[data-testid=name-input]", "Drawings for fun");
        browser.PressCss("[data-testid=lens-shared]");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Text("library-heading") == "Drawings for fun", "the lens");
        Row(browser, "Bench log");
        browser.WaitForSync("All saved");

        // On the other's device; there the tag is renamed with its child following, and the lens goes by it.
        var (second, network) = Open(Group.Owner);
        second.Go("/library/list/tags");
        second.PressCss("[data-testid=tag][data-name=exam] [data-testid=tag-menu]");
        second.Press("tag-rename");
        second.Fill("[data-testid=name-input]", "certificate");
        second.Press("dialog-confirm");
        second.Css("[data-testid=tag][data-name='certificate/level 2']");
        second.PressCss("[data-testid=lens][data-name='Drawings for fun']");
        Row(second, "Bench log");
        second.Until(() => second.Count("[data-testid=notebook-row]") == 1, "one");

        // Merged into its own child it cannot be; in the bin, it is on nothing, and the lens finds both. Without a connection the device answers.
        second.Go("/library/list/tags");
        second.PressCss("[data-testid=tag][data-name=certificate] [data-testid=tag-menu]");
        second.Press("tag-merge");
        Choose(second, "merge-into", second.AttributeAt("[data-testid=merge-into] option:first-child", "value")!);
        second.Press("dialog-confirm");
        Assert.Contains(
            "nested in",
            second.Until(() => second.Text("merge-problem") is { Length: > 0 } words ? words : null, "the refusal"),
            StringComparison.Ordinal
        );
        second.Type(Keys.Escape);
        second.PressCss("[data-testid=tag][data-name=certificate] [data-testid=tag-menu]");
        second.Press("tag-bin");
        Assert.StartsWith("1 thing loses it.", second.Text("tag-loses"), StringComparison.Ordinal);
        second.Press("dialog-confirm");
        second.WaitForSync("All saved");
        network.Cut();
        second.PressCss("[data-testid=lens][data-name='Drawings for fun']");
        second.Until(() => second.Count("[data-testid=notebook-row]") == 2, "both, from the device");
        Assert.Empty(browser.Errors());
    }
}
