<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What rows had set before they were hidden, on a desk and in a view: packed settings. */
return new class extends Migration {
    public function up(): void
    {
        foreach (['desks', 'views'] as $name) {
            Schema::table($name, static fn (Blueprint $table) => $table->binary('before_hiding')->nullable());
        }
    }

    public function down(): void
    {
        foreach (['desks', 'views'] as $name) {
            Schema::table($name, static fn (Blueprint $table) => $table->dropColumn('before_hiding'));
        }
    }
};
