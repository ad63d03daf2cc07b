<?php

declare(strict_types=1);

namespace App\Changes;

use App\Models\Casts\Bytes;
use App\Models\View;
use VineShelf\Scene\Pick;
use VineShelf\Views\KeptState;

/** What a view keeps that says something of objects, read from the columns of its row and written to them. */
final readonly class KeptColumns
{
    public KeptState $state;

    public function __construct(private View $view)
    {
        $tinted = $view->tint['pick'] ?? '';
        $this->state = new KeptState(
            $view->keepsRungs() ? $view->settings() : null,
            $view->keepsRungs() && ! $view->meansAll() ? $view->meant() : null,
            $view->output(),
            $view->isolation(),
            $tinted === '' ? null : Pick::unpack((string) base64_decode($tinted, true)),
        );
    }

    /**
     * The columns that keep a state: as they are stored where that is what the view keeps already.
     *
     * @return array<string, string|null> bytes in base64, the tint as JSON
     */
    public function of(KeptState $state): array
    {
        $is = $this->state;
        $kept = [
            'rungs' => [$is->rungs, $state->rungs],
            'meant' => [$is->meant, $state->meant],
            'own_output' => [$is->output, $state->output],
            'isolated' => [$is->isolation, $state->isolation],
        ];
        $columns = [];
        foreach ($kept as $column => [$now, $then]) {
            // Both are values: packing what is the same would take most of the time.
            $columns[$column] = $now == $then ? $this->stored($column) : base64_encode($then?->pack() ?? '');
        }
        $tint = $this->view->tint;
        if ($state->tinted != $is->tinted) {
            $tint = ['pick' => base64_encode($state->tinted?->pack() ?? '')] + ($tint ?? []);
        }

        return $columns + ['tint' => $tint === null ? null : ViewState::json($tint)];
    }

    private function stored(string $column): ?string
    {
        $stored = $this->view->getAttributes()[$column] ?? null;

        return $stored === null ? null : base64_encode(Bytes::read($stored));
    }
}
