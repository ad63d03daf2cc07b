<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\LedgerWindows;
use App\Models\Desk;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;

/** Lens, columns, sorting, folding and line are each window's own. */
final class LedgerWindowsTest extends ProjectTestCase
{
    public function test_windows_are_arranged_apart(): void
    {
        $first = $this->opened();
        $second = $this->opened();
        self::assertNotSame($first, $second);
        $this->arrange($first, ['lens' => 'objects', 'sort' => 'name', 'down' => 1]);
        $this->arrange($second, ['lens' => 'tags', 'columns' => '[["width",90]]']);
        self::assertSame(['objects', ['name', true]], [$this->kept($first)['lens'], $this->kept($first)['sort']]);
        self::assertSame(['tags', null], [$this->kept($second)['lens'], $this->kept($second)['sort']]);
        self::assertNotSame($this->kept($first)['columns'], $this->kept($second)['columns']);
        $this->page("?w=$first")->assertSee('data-lens="objects"', false);
        $this->page("?w=$second")->assertSee('data-lens="tags"', false);
    }

    public function test_a_new_window_begins_as_the_last_one_was(): void
    {
        $first = $this->opened();
        $second = $this->opened();
        $this->arrange($second, ['lens' => 'kinds']);
        $this->arrange($first, ['lens' => 'materials']);
        self::assertSame('materials', $this->kept($this->opened())['lens'], 'as the one that was arranged last');
        self::assertSame('kinds', $this->kept($this->opened("?like=$second"))['lens'], 'as the one it was asked to be like');
        self::assertSame('materials', $this->desk()->ledger['lens'] ?? '', 'and what has no window has the last one');
    }

    public function test_a_doubled_window_goes_its_own_way(): void
    {
        $first = $this->opened();
        $this->arrange($first, ['lens' => 'objects']);
        $this->arrange($this->opened(), ['lens' => 'sets']);
        $this->tell('copied1', ['like' => $first])->assertNoContent();
        self::assertSame('objects', $this->kept('copied1')['lens']);
        $this->arrange('copied1', ['lens' => 'tags']);
        self::assertSame('objects', $this->kept($first)['lens']);
        $this->tell('copied1', ['like' => $first])->assertNoContent();
        self::assertSame('tags', $this->kept('copied1')['lens'], 'a window that is there is left as it is');
    }

    public function test_the_line_is_the_windows_too(): void
    {
        $first = $this->opened();
        $second = $this->opened();
        $this->tell($first, ['line' => 'lamp'])->assertNoContent();
        $this->page("?w=$first")->assertSee('data-rule="lamp"', false);
        $this->page("?w=$second")->assertSee('data-rule=""', false);
        self::assertSame('lamp', LedgerWindows::line($this->desk(), $this->opened()), 'a new one begins with the last line');
        $this->tell($first, ['line' => ''])->assertNoContent();
        self::assertSame('', LedgerWindows::line($this->desk(), $first));
    }

    public function test_a_line_that_cannot_be_read_any_more_opens_all_the_same(): void
    {
        $window = $this->opened();
        $this->tell($window, ['line' => 'tag:"Gone for good" (']);
        $this->page("?w=$window")->assertOk();
    }

    public function test_windows_of_other_people_and_projects_are_theirs(): void
    {
        $window = $this->opened();
        $this->arrange($window, ['lens' => 'objects']);
        $other = $this->baths($this->ida);
        $this->get(route('workbench', $other)."?w=$window")->assertSee('data-lens="layers"', false);
        $this->page("?w=$window")->assertSee('data-lens="objects"', false);
    }

    public function test_the_oldest_are_forgotten_and_come_back_as_the_last(): void
    {
        $first = $this->opened();
        $this->arrange($first, ['lens' => 'objects']);
        $this->arrange($this->opened(), ['lens' => 'sets']);
        for ($more = 0; $more < LedgerWindows::MOST; $more++) {
            LedgerWindows::open($this->desk(), '');
        }
        self::assertSame(LedgerWindows::MOST, DB::table('ledger_windows')->where('project_id', $this->project->id)->count());
        $this->page("?w=$first")->assertSee('data-lens="sets"', false);
    }

    #[DataProvider('oddNames')]
    public function test_odd_names_are_none(string $name): void
    {
        self::assertSame('', LedgerWindows::named($name));
        $this->page('?w='.rawurlencode($name))->assertOk();
        self::assertSame(0, DB::table('ledger_windows')->where('window', $name)->count());
        $this->tell($name, ['line' => 'lamp'])->assertUnprocessable();
    }

    /** @return iterable<string, array{string}> */
    public static function oddNames(): iterable
    {
        yield 'empty' => [''];
        yield 'short' => ['abc'];
        yield 'long' => [str_repeat('a', 25)];
        yield 'capitals' => ['ABCDEF'];
        yield 'markup' => ['"><script>'];
        yield 'line break' => ["abcdef\n"];
        yield 'other digits' => ['١٢٣٤٥'];
    }

    private function page(string $query): TestResponse
    {
        return $this->get(route('workbench', $this->project).$query);
    }

    /** @return string name of the window that the page was opened in */
    private function opened(string $query = ''): string
    {
        preg_match('~data-window="(\w+)"~', (string) $this->page($query)->assertOk()->getContent(), $found);

        return $found[1] ?? self::fail('The page has no window.');
    }

    /** @param array<string, mixed> $values */
    private function arrange(string $window, array $values): void
    {
        $this->withHeader('X-Window', $window)->post($this->path('ledger'), $values)->assertOk();
        $this->flushHeaders();
    }

    /** @param array<string, string> $values */
    private function tell(string $window, array $values): TestResponse
    {
        $answer = $this->withHeader('X-Window', $window)->postJson($this->path('ledger/window'), $values);
        $this->flushHeaders();

        return $answer;
    }

    /** @return array<string, mixed> */
    private function kept(string $window): array
    {
        return LedgerWindows::arrangement($this->desk(), $window);
    }

    private function desk(): Desk
    {
        return Desk::of($this->project, $this->ida);
    }
}
