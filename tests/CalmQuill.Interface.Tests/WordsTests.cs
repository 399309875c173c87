using System.Text.RegularExpressions;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>The interface in the person's language: every word of it from a catalogue, what Core and the server refuse as well.</summary>
public sealed partial class WordsTests : InterfaceTest
{
    [Fact]
    public void Chosen_in_the_account_all_of_it_is_in_German_with_dates_numbers_and_refusals()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/account");
        browser.Press("language-de");
        browser.Css("html[lang=de]");
        browser.Until(() => browser.Css("nav a[href='/library']").Text == "Bibliothek", "the rail in German");
        Assert.True(browser.Find("language-de").Selected);

        // A refusal of the server's.
        browser.Fill("[data-testid=password-form] input[name=old]", "not the old one");
        browser.Fill("[data-testid=password-form] input[name=new]", "brass and lantern oil");
        browser.PressCss("[data-testid=password-form] button[type=submit]");
        browser.Until(
            () => browser.Css("[data-testid=password-form]").Text.Contains("Das alte Passwort stimmt nicht.", StringComparison.Ordinal),
            "the server's refusal in German"
        );

        // One of Core's, with a number in it, which came through the WebAssembly runtime as a message.
        browser.Go("/library");
        browser.Press("new-folder-group");
        browser.Fill("[data-testid=name-input]", new string('x', 201));
        browser.Press("dialog-confirm");
        browser.Until(
            () => browser.Css("[role=dialog]").Text.Contains("Ein Name hat höchstens 200 Zeichen.", StringComparison.Ordinal),
            "Core's refusal in German"
        );
        // What a person typed is nobody's to translate, and dates are written as one is used to.
        browser.Fill("[data-testid=name-input]", "Library of clocks");
        browser.Press("dialog-confirm");
        LibraryHands.Folder(browser, "Library of clocks");
        browser.Go("/desk");
        browser.Until(() => GermanDay().IsMatch(browser.Css("main").Text), "the day in German");

        browser.Go("/account");
        browser.Press("language-en");
        browser.Css("html[lang=en]");
        browser.Until(() => browser.Css("nav a[href='/library']").Text == "Library", "the rail in English again");
        Assert.Empty(browser.Errors());
    }

    [Theory]
    [InlineData("de-CH,en", "Anmelden", "de")]
    // A language that is not spoken here is passed over.
    [InlineData("qq,de,en", "Anmelden", "de")]
    [InlineData("qq", "Sign in", "en")]
    public void Before_anybody_chose_it_goes_by_what_the_browsers_owner_reads(string wishes, string words, string language)
    {
        using var browser = new Browser(Host.Address);
        browser.Driver.ExecuteCdpCommand(
            "Network.setUserAgentOverride",
            new Dictionary<string, object?> { ["userAgent"] = "Chromium", ["acceptLanguage"] = wishes }
        );
        browser.Go("/sign-in");
        browser.Until(() => browser.Text("sign-in") == words, $"the door in {language}");
        Assert.Equal(language, browser.Css("html").GetAttribute("lang"));
    }

    [Fact]
    public void No_word_of_the_interface_is_outside_the_catalogue_and_from_right_to_left_nothing_sticks_out()
    {
        var browser = Open(Group.Owner).Browser;
        browser.Go(PagePath);
        browser.Press("contents");
        browser.Find("margin-contents");
        browser.Script("localStorage.setItem('quill.language', 'marked')");
        var loose = new HashSet<string>();
        foreach (var (path, ready) in MainViews)
        {
            browser.Go(path);
            browser.Css(ready);
            Look(path);
            Assert.Equal("rtl", browser.Css("html").GetAttribute("dir"));
            Assert.True(
                (long)browser.Script("return document.documentElement.scrollWidth - innerWidth")! <= 0,
                $"from right to left {path} is wider than its window: {browser.Script("return [...document.querySelectorAll('body *')].filter((one) => one.getBoundingClientRect().left < -1 && one.getBoundingClientRect().width > 0).map((one) => `${one.tagName} ${one.dataset.testid ?? one.className}`).slice(0, 5).join('; ')")}"
            );
        }

        // The rail stands where one begins to read.
        browser.Go("/library");
        browser.Css("[data-testid=notebook-row]");
        Assert.True((bool)browser.Script("return document.querySelector('nav').getBoundingClientRect().right > innerWidth - 10")!);
        foreach (var opens in new[] { "new-notebook", "new-folder-group", "filter", "choose-several", "row-menu" })
            Unfold(opens);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        foreach (
            var opens in new[]
            {
                "all-tools-button",
                "export",
                "zoom",
                "tool-eraser",
                "tool-shape",
                "tool-loop",
                "tool-mark",
                "tool-layers",
                "tool-room",
                "tool-put",
                "tool-text",
            }
        )
            Unfold(opens);
        browser.Type("?");
        browser.Find("keys-sheet");
        Look("the keys");
        Assert.True(loose.Count == 0, string.Join('\n', loose));

        void Unfold(string testId)
        {
            browser.Press(testId);
            // Pressed again a tool unfolds what can be set of it.
            if (testId.StartsWith("tool-", StringComparison.Ordinal))
                browser.Press(testId);
            Look(testId);
            browser.Type(Keys.Escape);
        }

        void Look(string where)
        {
            // Languages go by what they call themselves, and time zones by their names in the IANA's list.
            foreach (var text in (IEnumerable<object>)browser.Script(Unmarked)!)
            {
                var rest = Known()
                    .Replace(KnownNames.Aggregate((string)text, (left, name) => left.Replace(name, "", StringComparison.Ordinal)), "");
                if (Letters().IsMatch(rest))
                    loose.Add($"{where}: {text}");
            }
        }
    }

    /// <summary>What people wrote, or are called.</summary>
    private string[] KnownNames =>
        [
            "Escapements",
            Group.Owner.Email,
            .. new[] { Group.Owner, Group.Writer, Group.Reader }.SelectMany(person =>
                new[] { person.Name, $"{person.Name[0]}P", person.Name.Split(' ')[0] }
            ),
            "Group",
        ];

    /// <summary>Dates, units, sizes of paper and names of standards are not the catalogue's; nor is what a browser calls itself.</summary>
    [GeneratedRegex(
        @"\b(Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day\b|\b(January|February|March|April|May|June|July|August|September|October|November|December)\b|\b(Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)\b|\b\d*(mm|pt|kB|MB|GB)\b|\bA[3-6]\b|\bB5\b|\bChrom\w+|\bLinux\b|https?:\S+"
    )]
    private static partial Regex Known();

    [GeneratedRegex(@"\p{L}{2,}")]
    private static partial Regex Letters();

    [GeneratedRegex("(Mon|Diens|Donners|Frei|Sams|Sonn)tag|Mittwoch")]
    private static partial Regex GermanDay();

    /// <summary>All that is to be read, or to be heard, and has no signs of the catalogue round it.</summary>
    private const string Unmarked = """
        let depth = 0;
        const bare = (text) => {
          let left = '';
          for (const sign of text) {
            if (sign === '⟦') depth++;
            else if (sign === '⟧') depth--;
            else if (depth === 0) left += sign;
          }
          return left.trim();
        };
        const found = [];
        // A message may go on over elements within it, so the depth goes on from node to node.
        const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
        for (let node; (node = walker.nextNode()); )
          if (!node.parentElement.closest('script, style, svg, [data-testid=planner-language], [data-testid=zone] option:not([value=""]), label:has(input[name=language])')) found.push(bare(node.data));
        for (const element of document.querySelectorAll('[aria-label], [title], [placeholder], [alt]'))
          for (const name of ['aria-label', 'title', 'placeholder', 'alt']) found.push(bare(element.getAttribute(name) ?? ''));
        return [...new Set(found)].filter(Boolean);
        """;
}
