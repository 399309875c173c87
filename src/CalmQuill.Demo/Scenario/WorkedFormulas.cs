namespace CalmQuill.Demo.Scenario;

/// <summary>Formulas of the seconds pendulum and its clock, worked out on a page. They are true; 9.81 m/s² is the fall in temperate latitudes.</summary>
internal static class WorkedFormulas
{
    public static void Draw(PageWriter writer)
    {
        writer.Formula(30, 4, "T = 2 pi sqrt(L/g)", "solve steps", "L");
        writer.Formula(30, 16.5, "T = 2 s\ng = 9.81 m/s^2\nL = (g T^2)/(4 pi^2)", "value steps");
        writer.Formula(30, 24, "0.9 = 1/2 * 9.81 t^2", "solve steps", "t");
        writer.Formula(30, 35.2, "n = 64/8 * 60/8", "value");
    }
}
