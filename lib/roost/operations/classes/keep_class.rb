# frozen_string_literal: true

module Roost
  module Operations
    # Makes a class, or changes what it is called and what it is about.
    class KeepClass
      LIMITS = { name: 60, subject: 60, year: 40 }.freeze
      CALLED = { name: "The name of the class", subject: "The subject", year: "The year" }.freeze

      # @param form [Hash] "name", "subject", "year"
      # @return [Core::Reading] of the id of a new class
      def create(account_id, form) = read(form, LIMITS.keys).map { |about| Store::Classes.new.create(account_id, about) }

      # @param form [Hash] as above, and "sorted_by" ("first" or "family" names), "shares_figures"; what is not in it stays
      # @return [Core::Reading, nil] of the class's id; nil unless it is hers
      def change(account_id, id, form)
        classes = Store::Classes.new
        return nil unless classes.find(account_id, id)&.mine

        read(form, LIMITS.keys.select { |field| form.key?(field.to_s) }).map do |about|
          about = about.merge(by_first_name: form["sorted_by"] == "first") if form.key?("sorted_by")
          about = about.merge(shares_figures: form["shares_figures"] == "1") if form.key?("shares_figures")
          classes.change(id, about) if about.any?
          id
        end
      end

      # Puts a class away at the end of a year, or takes it out again.
      # @return [Integer, nil] its id; nil unless it is hers
      def archive(account_id, id, archived: true) = mark(account_id, id, archived: archived)

      # Deletes a class, or brings it back while it is not purged. Its students stay in their other classes,
      # its sessions in the results.
      # @return [Integer, nil] its id; nil unless it is hers
      def delete(account_id, id, deleted: true) = mark(account_id, id, deleted: deleted)

      private

      def mark(account_id, id, **marks)
        classes = Store::Classes.new
        return nil unless classes.find(account_id, id, deleted: true)&.mine

        classes.mark(id, **marks)
        id
      end

      def read(form, fields)
        reading = fields.reduce(Core::Reading.ok({})) do |so_far, field|
          so_far.and_then do |about|
            Core::Text.read(form[field.to_s], limit: LIMITS[field], what: CALLED[field], lines: false)
                      .map { |text| about.merge(field => text) }
          end
        end
        reading.and_then { |about| about[:name] == "" ? Core::Reading.refused("A class needs a name.") : Core::Reading.ok(about) }
      end
    end
  end
end
