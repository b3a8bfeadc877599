# frozen_string_literal: true

# A lesson's slides become rows of their own, and a revision keeps only what it changed:
# so a save costs the same in a lesson of ten slides and of a hundred and twenty.
#
# head::   the lesson document without its slides, with "slide_ids" in order
# undoes:: number of the revision that this one took back
module LessonSlides
  module_function

  # @param document [Hash] a whole lesson
  # @return [Array(Hash, Hash)] head, and slide id to document
  def apart(document)
    slides = document["slides"].to_h { |slide| [slide["id"], slide] }
    [document.except("slides").merge("slide_ids" => slides.keys), slides]
  end

  def current(document) = Roost::Core::Lesson.from_document(document.to_h).to_document

  def split(database)
    database[:lessons].order(:id).select(:id, :document).each do |row|
      head, slides = apart(current(row[:document]))
      database[:lessons].where(id: row[:id]).update(head: Sequel.pg_jsonb(head))
      slides.each do |id, slide|
        database[:lesson_slides].insert(lesson_id: row[:id], slide_id: id, document: Sequel.pg_jsonb(slide))
      end
      split_revisions(database, row[:id])
    end
  end

  def split_revisions(database, lesson_id)
    before = [nil, {}]
    database[:lesson_revisions].where(lesson_id: lesson_id).order(:number).select(:number, :document).each do |row|
      head, slides = apart(current(row[:document]))
      changed = slides.reject { |id, slide| before[1][id] == slide }
      database[:lesson_revisions].where(lesson_id: lesson_id, number: row[:number])
                                 .update(head: (Sequel.pg_jsonb(head) unless head == before[0]), slides: Sequel.pg_jsonb(changed))
      before = [head, slides]
    end
  end

  def join(database)
    database[:lessons].select(:id, :head).each do |row|
      slides = database[:lesson_slides].where(lesson_id: row[:id]).as_hash(:slide_id, :document)
      database[:lessons].where(id: row[:id]).update(document: Sequel.pg_jsonb(together(row[:head].to_h, slides)))
      join_revisions(database, row[:id])
    end
  end

  def join_revisions(database, lesson_id)
    head = nil
    slides = {}
    database[:lesson_revisions].where(lesson_id: lesson_id).order(:number).select(:number, :head, :slides).each do |row|
      head = row[:head].to_h if row[:head]
      slides.merge!(row[:slides].to_h)
      database[:lesson_revisions].where(lesson_id: lesson_id, number: row[:number])
                                 .update(document: Sequel.pg_jsonb(together(head, slides)))
    end
  end

  def together(head, slides) = head.except("slide_ids").merge("slides" => head["slide_ids"].map { |id| slides.fetch(id) })
end

Sequel.migration do
  up do
    alter_table(:lessons) { add_column :head, :jsonb }
    create_table(:lesson_slides) do
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      column :document, :jsonb, null: false
      primary_key %i[lesson_id slide_id]
    end
    alter_table(:lesson_revisions) do
      add_column :head, :jsonb
      add_column :slides, :jsonb
      add_column :undoes, Integer
    end
    LessonSlides.split(self)
    alter_table(:lessons) do
      set_column_not_null :head
      drop_column :document
    end
    alter_table(:lesson_revisions) do
      set_column_not_null :slides
      drop_column :document
    end
  end

  down do
    alter_table(:lessons) { add_column :document, :jsonb }
    alter_table(:lesson_revisions) { add_column :document, :jsonb }
    LessonSlides.join(self)
    alter_table(:lesson_revisions) do
      set_column_not_null :document
      drop_column :head
      drop_column :slides
      drop_column :undoes
    end
    alter_table(:lessons) do
      set_column_not_null :document
      drop_column :head
    end
    drop_table(:lesson_slides)
  end
end
