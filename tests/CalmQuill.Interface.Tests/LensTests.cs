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
        Tag(browser, "Escapements", "exam/level 2", "drawings");
        Tag(browser, "Bench log", "drawings");

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

    [Fact]
    public void Narrowing_down_stays_within_its_place_and_a_lens_lets_go_of_a_tag_that_is_gone()
    {
        var browser = Open(Group.Owner).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        NewNotebook(browser, "Bench log");
        browser.Go("/library");
        NewFolder(browser, "Workshop");
        Tag(browser, "Escapements", "brass", "steel");
        Tag(browser, "Bench log", "brass");

        browser.Drag(() => Row(browser, "Bench log").FindElement(By.CssSelector("[data-item]")), () => Folder(browser, "Workshop"));
        browser.WaitForSync("All saved");

        // In the folder there is one with the tag, in the library two, and over all libraries two.
        browser.PressCss("[data-testid=folder][data-name=Workshop]");
        browser.Until(() => browser.Text("library-heading") == "Workshop", "the folder");
        Found("1 found");
        browser.Go("/library");
        Found("2 found");
        browser.Go("/library/list/all");
        Found("2 found");
        browser.PressCss("[data-testid=filter-tag][data-name=steel]");
        browser.PressCss("[data-testid=filter-tag][data-name=steel]");
        browser.Until(() => browser.Text("found") == "1 found", "both tags");
        Assert.Equal(0, browser.Count("[data-testid=save-lens]"));
        browser.Go("/library/list/often");
        Found("1 found");

        browser.Go("/library");
        Found("2 found");
        browser.PressCss("[data-testid=filter-tag][data-name=steel]");
        browser.Press("save-lens");
        browser.Fill("[data-testid=name-input]", "Metals");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Text("library-heading") == "Metals", "the lens");
        browser.Go("/library/list/tags");
        browser.PressCss("[data-testid=tag][data-name=steel] [data-testid=tag-menu]");
        browser.Press("tag-bin");
        browser.Press("dialog-confirm");
        browser.PressCss("[data-testid=lens][data-name=Metals]");
        browser.Press("filter");
        browser.Press("filter-gone");
        browser.Until(() => browser.Count("[data-testid=filter-gone]") == 0, "it taken out");
        browser.Press("save-lens");
        browser.Until(() => Said(browser).Contains("“Metals” asks this now.", StringComparison.Ordinal), "the word for it");
        browser.Press("filter");
        Assert.Equal(0, browser.Count("[data-testid=filter-gone]"));
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());

        void Found(string words)
        {
            browser.Press("filter");
            browser.PressCss("[data-testid=filter-tag][data-name=brass]");
            browser.Until(() => browser.Text("found") == words, words);
        }
    }

    [Fact]
    public void Folders_stand_in_natural_order_until_they_are_put_in_one_by_hand_or_pinned()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        foreach (var name in new[] { "Year 10", "Year 2", "Year 1" })
            NewFolder(browser, name);
        string[] Of(string css) =>
            [
                .. browser
                    .Driver.FindElements(By.CssSelector(css))
                    .OrderBy(one => one.Location.Y)
                    .ThenBy(one => one.Location.X)
                    .Select(one => one.GetAttribute("data-name")!),
            ];
        const string Tiles = "[aria-label='Inner folders'] [data-name]",
            Tree = "[data-testid=folder][data-name^=Year]";
        browser.Until(
            () => Of(Tiles) is ["Year 1", "Year 2", "Year 10"] && Of(Tree) is ["Year 1", "Year 2", "Year 10"],
            "the order of people"
        );
        Choose(browser, "sort", "own");
        browser.Until(() => Of(Tiles) is ["Year 10", "Year 2", "Year 1"], "the order in which they were made");
        browser.PressCss("[aria-label='Inner folders'] [data-name='Year 2'] [data-testid=row-menu]");
        browser.Press("menu-earlier");
        browser.Until(
            () => Of(Tiles) is ["Year 2", "Year 10", "Year 1"] && Of(Tree) is ["Year 2", "Year 10", "Year 1"],
            "one place earlier"
        );
        browser.PressCss("[aria-label='Inner folders'] [data-name='Year 1'] [data-testid=row-menu]");
        browser.Press("menu-pin");
        browser.Until(() => Of(Tiles) is ["Year 1", "Year 2", "Year 10"], "the pinned one first");
        browser.PressCss("[aria-label='Inner folders'] [data-name='Year 10'] [data-testid=row-menu]");
        Assert.Equal(0, browser.Count("[data-testid=menu-later]"));
        browser.Type(Keys.Escape);
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    private static void Tag(Browser browser, string notebook, params string[] tags)
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
}
