using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What hands do in the library, for tests that go on from there.</summary>
internal static class LibraryHands
{
    public static IWebElement Row(Browser browser, string name) => browser.Css($"[data-testid=notebook-row][data-name='{name}']");

    /// <summary>What was just done, as the line at the foot says it.</summary>
    public static string Said(Browser browser) =>
        string.Concat(browser.Driver.FindElements(By.CssSelector("[data-testid=said]")).Select(line => line.Text));

    public static void Choose(Browser browser, string select, string value) =>
        browser.PressCss($"[data-testid={select}] option[value='{value}']");

    public static void NewNotebook(Browser browser, string name)
    {
        browser.Go("/library");
        browser.Press("new-notebook");
        browser.Fill("[data-testid=name-input]", name);
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
    }

    public static IWebElement Folder(Browser browser, string name) => browser.Css($"[data-testid=folder][data-name='{name}']");

    public static void NewFolder(Browser browser, string name)
    {
        browser.Press("new-folder-group");
        browser.Fill("[data-testid=name-input]", name);
        browser.Press("dialog-confirm");
        Folder(browser, name);
    }
}
