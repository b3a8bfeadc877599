# frozen_string_literal: true

# What finding and sharing lessons needs: words to search for, kept beside what they were
# taken from; who else may see or edit a lesson; stars; and who is on which slide now.
module Searchable
  module_function

  def fill(database)
    database[:lessons].select(:id, :head).each do |row|
      words = Sequel.function(:to_tsvector, "english", Roost::Store::Catalogue.words(row[:head].to_h))
      database[:lessons].where(id: row[:id]).update(search: words)
    end
    database[:lesson_slides].each do |row|
      about = Roost::Store::Catalogue.about(Roost::Core::Slide.from_document(row[:document].to_h))
      database[:lesson_slides].where(row.slice(:lesson_id, :slide_id)).update(about)
    end
  end
end

Sequel.migration do
  up do
    alter_table(:lessons) do
      add_column :search, :tsvector
      add_column :open_to_all, TrueClass, null: false, default: false
      add_column :archived_at, "timestamptz"
      add_index :search, type: :gin
      add_index :updated_at
    end
    alter_table(:lesson_slides) do
      add_column :search, :tsvector
      add_column :asks, TrueClass, null: false, default: false
      add_column :unfinished, TrueClass, null: false, default: false
      add_index :search, type: :gin
    end
    create_table(:lesson_shares) do
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      TrueClass :may_edit, null: false
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[lesson_id account_id]
      index :account_id
    end
    create_table(:lesson_stars) do
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      primary_key %i[account_id lesson_id]
    end
    create_table(:lesson_editors) do
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      column :seen_at, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[lesson_id account_id]
    end
    Searchable.fill(self)
  end

  down do
    drop_table(:lesson_editors, :lesson_stars, :lesson_shares)
    alter_table(:lesson_slides) do
      drop_column :search
      drop_column :asks
      drop_column :unfinished
    end
    alter_table(:lessons) do
      drop_index :updated_at
      drop_column :search
      drop_column :open_to_all
      drop_column :archived_at
    end
  end
end
