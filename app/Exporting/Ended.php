<?php

declare(strict_types=1);

namespace App\Exporting;

/** Whoever asked for an export does not want it any more. */
final class Ended extends \RuntimeException {}
